package main

import (
	"fmt"
	"os"
	"path/filepath"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/formats"

	"github.com/spf13/cobra"
)

// sliceCommand cuts an STL mesh into layers of the stock, as SVG and DXF at 1:1.
func sliceCommand() *cobra.Command {
	var thick, unit, out string
	c := &cobra.Command{
		Use:   "slice FILE.stl",
		Short: "cuts a mesh into layers of the stock, SVG and DXF at 1:1",
		Args:  cobra.ExactArgs(1),
		Long: "Reads an ASCII or binary STL, reports holes, flips and self-contact in words, and writes each layer's " +
			"outline.\nExit 2: the mesh cannot be read or cut.",
		RunE: func(cmd *cobra.Command, args []string) error {
			t, err := measure.Parse[measure.LengthKind](thick)
			if err != nil {
				return exit{2, fmt.Errorf("--t: %w", err)}
			}
			one, err := measure.Parse[measure.LengthKind](unit)
			if err != nil {
				return exit{2, fmt.Errorf("--unit: %w", err)}
			}
			mesh, err := meshOf(args[0], one.Value())
			if err != nil {
				return exit{2, err}
			}
			w := cmd.OutOrStdout()
			r, err := formats.SliceSTL(mesh, t.Value())
			size := vec(r.Mesh)
			fmt.Fprintf(
				w,
				"%d triangles, %s x %s x %s\n",
				r.Mesh.Triangles,
				measure.Inches(size.X),
				measure.Inches(size.Y),
				measure.Inches(size.Z),
			)
			for _, s := range r.Mesh.Words() {
				fmt.Fprintln(w, s)
			}
			if err != nil {
				return exit{2, err}
			}
			if r.Union {
				fmt.Fprintln(w, "shells touch or run into each other: what is in any of them was cut")
			}
			fmt.Fprintf(w, "%d layers of %s; the solid is %.2f L, the layers %.2f L\n", len(r.Slices), thick,
				r.Mesh.Volume/1e6, r.Volume/1e6)
			if out == "" {
				return nil
			}
			if err := writeSlices(out, r); err != nil {
				return err
			}
			fmt.Fprintln(w, "written to", out)
			return nil
		},
	}
	c.Flags().StringVar(&thick, "t", "2 in", "thickness of the stock")
	c.Flags().StringVar(&unit, "unit", "1 mm", "what one unit of the mesh measures")
	c.Flags().StringVar(&out, "out", "", "folder to write SVG and DXF to")
	return c
}

// meshOf reads a mesh from a file, of which one unit is so many mm.
func meshOf(name string, unit float64) (pattern.Mesh, error) {
	if fi, err := os.Stat(name); err == nil && fi.Size() > 512<<20 {
		return nil, fmt.Errorf("%s is larger than 512 MB", name)
	}
	data, err := os.ReadFile(name)
	if err != nil {
		return nil, err
	}
	return formats.STL(data, unit)
}

// vec is how large a mesh is.
func vec(m pattern.MeshReport) pattern.Vec {
	return pattern.Vec{X: m.Hi.X - m.Lo.X, Y: m.Hi.Y - m.Lo.Y, Z: m.Hi.Z - m.Lo.Z}
}

// writeSlices writes each layer's outline to a folder.
func writeSlices(out string, r *formats.SliceReport) error {
	if err := os.MkdirAll(out, 0o755); err != nil {
		return err
	}
	size, lo := vec(r.Mesh), r.Mesh.Lo
	for i, loops := range r.Slices {
		f := &formats.Flat{Title: fmt.Sprintf("Slice %d of %d", i+1, len(r.Slices)), W: size.X, H: size.Y}
		for _, l := range loops {
			pts := make([]pattern.Point, len(l))
			for k, p := range l {
				pts[k] = pattern.Point{X: p.X - lo.X, Y: p.Y - lo.Y}
			}
			f.Lines = append(f.Lines, formats.Stroke{Layer: "cut", Points: pts, Closed: true})
		}
		f.Texts = append(
			f.Texts,
			formats.Label{At: pattern.Point{X: f.W / 2, Y: f.H / 2}, High: 10, Text: fmt.Sprintf("%d ^", i+1)},
		)
		if err := both(filepath.Join(out, fmt.Sprintf("slice%03d", i+1)), f); err != nil {
			return err
		}
	}
	return nil
}

func both(base string, f *formats.Flat) error {
	for _, ext := range []string{".svg", ".dxf"} {
		file, err := os.Create(base + ext)
		if err != nil {
			return err
		}
		write := f.SVG
		if ext == ".dxf" {
			write = f.DXF
		}
		if err := write(file); err != nil {
			file.Close()
			return err
		}
		if err := file.Close(); err != nil {
			return err
		}
	}
	return nil
}

package formats

import (
	"fmt"
	"io"

	"github.com/xuri/excelize/v2"
)

// writeXLSX writes tables as a workbook, a sheet each, the heading bold and kept in view.
func writeXLSX(out io.Writer, names []string, tables [][][]any) error {
	f := excelize.NewFile()
	defer f.Close()
	bold, err := f.NewStyle(&excelize.Style{Font: &excelize.Font{Bold: true}})
	if err != nil {
		return err
	}
	for i, name := range names {
		if i == 0 {
			err = f.SetSheetName("Sheet1", name)
		} else {
			_, err = f.NewSheet(name)
		}
		for k, r := range tables[i] {
			if err == nil {
				err = f.SetSheetRow(name, fmt.Sprintf("A%d", k+1), &r)
			}
		}
		if err == nil {
			err = f.SetRowStyle(name, 1, 1, bold)
		}
		if err == nil {
			err = f.SetPanes(
				name,
				&excelize.Panes{Freeze: true, YSplit: 1, TopLeftCell: "A2", ActivePane: "bottomLeft"},
			)
		}
		if err != nil {
			return err
		}
	}
	return f.Write(out)
}

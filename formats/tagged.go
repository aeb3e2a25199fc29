package formats

import (
	"bytes"
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// structure is a piece of what a document says: a heading, a paragraph, a table and its
// rows, as ISO 32000-1, 14.7 and 14.8 name them.
type structure struct {
	role  string
	kids  []*structure
	marks []mark
	at    int // its object
}

// mark is a marked text: which page it is on, from 1, and its number there.
type mark struct{ page, number int }

func beginMark(role string, number int) string {
	return fmt.Sprintf("/%s <</MCID %d>> BDC", role, number)
}

var (
	pdfTrailer = regexp.MustCompile(`(?s)trailer\s*<<\s*/Size (\d+)\s*/Root (\d+) 0 R\s*/Info (\d+) 0 R\s*>>\s*startxref\s*(\d+)\s*%%EOF\s*$`)
	xrefEntry  = regexp.MustCompile(`^(\d{10}) \d{5} [nf]`)
)

// pdfFile is a PDF as it was written, with where its objects lie.
type pdfFile struct {
	data []byte
	at   []int // of each object
}

// object is what stands between "obj" and "endobj".
func (f pdfFile) object(n int) ([]byte, error) {
	if n <= 0 || n >= len(f.at) {
		return nil, fmt.Errorf("object %d is not in the file", n)
	}
	head := fmt.Appendf(nil, "%d 0 obj", n)
	body, ok := bytes.CutPrefix(f.data[f.at[n]:], head)
	if !ok {
		return nil, fmt.Errorf("object %d is not where the file says", n)
	}
	body, _, _ = bytes.Cut(body, []byte("endobj"))
	return body, nil
}

// tagged adds a document's structure to a PDF that marks its texts, as an update behind
// it (ISO 32000-1, 7.5.6): the tree of what is said, and for each page which of its marks
// belongs where. marks is how many a page has, from page 1 on.
func tagged(data []byte, said []*structure, marks []int) ([]byte, error) {
	m := pdfTrailer.FindSubmatch(data)
	if m == nil {
		return nil, fmt.Errorf("the PDF has no trailer that is known")
	}
	size, root, info, xref := number(m[1]), number(m[2]), number(m[3]), number(m[4])
	f := pdfFile{data: data, at: make([]int, size)}
	lines := strings.Split(string(data[xref:min(len(data), xref+20*size+200)]), "\n")
	for i, n := 2, 0; i < len(lines) && n < size; i++ { // past "xref" and "0 size"
		e := xrefEntry.FindStringSubmatch(lines[i])
		if e == nil {
			break
		}
		f.at[n] = number([]byte(e[1]))
		n++
	}
	u := &update{pdfFile: f, next: size, places: map[int]int{}}
	u.out.Write(data)
	if err := u.structure(root, said, marks); err != nil {
		return nil, err
	}
	u.close(root, info, xref)
	return u.out.Bytes(), nil
}

func number(digits []byte) int {
	n, _ := strconv.Atoi(string(digits)) // the pattern let digits through
	return n
}

// update is what is written behind a PDF.
type update struct {
	pdfFile
	out    bytes.Buffer
	next   int         // the next free object
	places map[int]int // where the new objects lie
}

// put writes an object, new or in place of one that is there.
func (u *update) put(n int, body string) {
	u.places[n] = u.out.Len()
	fmt.Fprintf(&u.out, "%d 0 obj\n%s\nendobj\n", n, body)
}

// pageObject is the object of a page, from 1: the library writes each before its content.
func pageObject(page int) int { return 1 + 2*page }

func (u *update) structure(root int, said []*structure, marks []int) error {
	tree := u.next
	whole := &structure{role: "Document", kids: said}
	u.next++
	u.number(whole)
	belongs := make([][]int, len(marks)) // of each page's marks: their objects
	for page := range marks {
		belongs[page] = make([]int, marks[page])
	}
	u.element(whole, tree, belongs)
	var pages []string
	for page := 1; page < len(marks); page++ {
		body, err := u.object(pageObject(page))
		if err != nil {
			return err
		}
		if !bytes.Contains(body, []byte("/Type /Page\n")) {
			return fmt.Errorf("object %d is no page", pageObject(page))
		}
		u.put(pageObject(page), strings.Replace(strings.TrimSpace(string(body)), "/Type /Page\n",
			fmt.Sprintf("/Type /Page\n/StructParents %d\n/Tabs /S\n", page-1), 1))
		refs := make([]string, len(belongs[page]))
		for i, n := range belongs[page] {
			refs[i] = fmt.Sprintf("%d 0 R", n)
		}
		pages = append(pages, fmt.Sprintf("%d [%s]", page-1, strings.Join(refs, " ")))
	}
	u.put(tree, fmt.Sprintf("<</Type /StructTreeRoot /K %d 0 R /ParentTree <</Nums [%s]>> /ParentTreeNextKey %d>>",
		whole.at, strings.Join(pages, " "), len(pages)))
	catalog, err := u.object(root)
	if err != nil {
		return err
	}
	u.put(root, strings.Replace(strings.TrimSpace(string(catalog)), "/Type /Catalog", fmt.Sprintf(
		"/Type /Catalog /MarkInfo <</Marked true>> /StructTreeRoot %d 0 R /ViewerPreferences <</DisplayDocTitle true>>",
		tree), 1))
	return nil
}

// number gives each element its object.
func (u *update) number(s *structure) {
	s.at = u.next
	u.next++
	for _, k := range s.kids {
		u.number(k)
	}
}

// element writes an element and all within it.
func (u *update) element(s *structure, parent int, belongs [][]int) {
	var kids []string
	for _, m := range s.marks {
		belongs[m.page][m.number] = s.at
		kids = append(kids, fmt.Sprintf("<</Type /MCR /Pg %d 0 R /MCID %d>>", pageObject(m.page), m.number))
	}
	for _, k := range s.kids {
		u.element(k, s.at, belongs)
		kids = append(kids, fmt.Sprintf("%d 0 R", k.at))
	}
	u.put(s.at, fmt.Sprintf("<</Type /StructElem /S /%s /P %d 0 R /K [%s]>>", s.role, parent, strings.Join(kids, " ")))
}

// close writes where the new objects lie, and the trailer that leads to the old ones.
func (u *update) close(root, info, before int) {
	at := u.out.Len()
	u.out.WriteString("xref\n")
	for n := range u.next {
		if place, ok := u.places[n]; ok {
			fmt.Fprintf(&u.out, "%d 1\n%010d 00000 n \n", n, place)
		}
	}
	fmt.Fprintf(&u.out, "trailer\n<<\n/Size %d\n/Root %d 0 R\n/Info %d 0 R\n/Prev %d\n>>\nstartxref\n%d\n%%%%EOF\n",
		u.next, root, info, before, at)
}

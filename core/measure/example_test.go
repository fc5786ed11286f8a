package measure_test

import (
	"fmt"

	"kindmargin/core/measure"
)

// A length is read as people write it, kept exactly, and shown on a tape.
func Example() {
	width, err := measure.Parse("30 5/8", measure.Inches)
	if err != nil {
		panic(err)
	}
	fmt.Println(width)
	fmt.Println(measure.UsualTape(measure.Inches).Show(width))
	fmt.Println(measure.UsualTape(measure.Millimetres).Show(width))
	// Output:
	// 777.875 mm
	// 30 5/8
	// 778
}

// What cannot be read says which text, and an ID of what is wrong with it.
func ExampleParse_refused() {
	_, err := measure.Parse("82 9", measure.Millimetres)
	fmt.Println(err)
	// Output: unread.two-lengths "82 9"
}

package survey_test

import (
	"fmt"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
)

// Two widths and a height of an old opening: how wide it is in between, and how sure that is.
func Example() {
	mm := measure.FromMM
	readings := []survey.Reading{
		{ID: "a", Kind: survey.Width, At: mm(200), Value: mm(826)},
		{ID: "b", Kind: survey.Width, At: mm(1800), Value: mm(829)},
		{ID: "c", Kind: survey.Height, At: mm(400), Value: mm(2040)},
	}
	shape, err := survey.Estimate(readings, nil, survey.OldOpening(826, 2040))
	if err != nil {
		panic(err)
	}
	read, near := shape.Of(survey.Row{{survey.Of(frame.Lock), 200, 1}, {survey.Of(frame.Hinge), 200, -1}})
	between, sure := shape.Of(survey.Row{{survey.Of(frame.Lock), 1000, 1}, {survey.Of(frame.Hinge), 1000, -1}})
	fmt.Printf("%.0f mm wide at 200 mm, as it was read\n", read)
	fmt.Printf("%.1f mm in the middle, where it is less sure: %t\n", between, sure > near)
	// Output:
	// 826 mm wide at 200 mm, as it was read
	// 827.5 mm in the middle, where it is less sure: true
}

// One of four widths was misread by 10 mm: it is the one named.
func ExampleShape_Suspects() {
	mm := measure.FromMM
	var readings []survey.Reading
	for i, width := range []float64{826, 826.5, 836, 827} {
		readings = append(readings, survey.Reading{
			ID: fmt.Sprint(i), Kind: survey.Width, At: mm(float64(200 + 500*i)), Value: mm(width),
		})
	}
	shape, err := survey.Estimate(readings, nil, survey.OldOpening(826, 2040))
	if err != nil {
		panic(err)
	}
	for _, s := range shape.Suspects() {
		fmt.Println(s.Reading.Value)
	}
	// Output: 836 mm
}

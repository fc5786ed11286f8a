package day

import (
	"fmt"
	"testing"

	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// doors are so many doors of twelve tasks each, as they come.
func doors(n int) (tasks []Task) {
	for d := range n {
		first := len(tasks)
		for i, w := range trade.Works[3:] {
			t := Task{
				ID: fmt.Sprint(d, w.ID), Name: message.Message{ID: w.Name()}, OpeningID: fmt.Sprint("d", d),
				Place: w.Place, Minutes: int(w.Minutes + 2*w.Each), Hands: 1, Dries: w.Dries,
			}
			if w.Tool != "" {
				t.Set = Setting{Tool: w.Tool, Key: fmt.Sprint(d % 3)}
			}
			if i > 0 {
				t.After = []int{first + i - 1}
			}
			tasks = append(tasks, t)
		}
	}
	return tasks
}

func BenchmarkArrange(b *testing.B) {
	for _, n := range []int{2, 6, 12, 24} {
		b.Run(fmt.Sprint(n, " doors"), func(b *testing.B) {
			tasks := doors(n)
			k := Calendar{Hours: []Span{{480, 1020}, {480, 1020}}, Break: Span{720, 750}}
			b.ReportAllocs()
			for b.Loop() {
				o, err := Arrange(tasks, k, 480)
				if err != nil || len(o.Left) > 0 {
					b.Fatal(err, o.Left)
				}
				b.ReportMetric(float64(o.Prep), "prep")
				b.ReportMetric(float64(o.End()), "end")
			}
		})
	}
}

package voice

import (
	"bytes"
	"encoding/binary"
	"errors"
	"math"
)

// Rate is how many samples a second words are kept in.
const Rate = 16000

// The bounds of what is recorded, in seconds; the figures are ours.
const (
	LongestTake = 120
	LongestWord = 4
)

// LargestWord is how many bytes the file of a word has at most.
const LargestWord = 2*LongestWord*Rate + 1000

// errWAV says what a recording has to be.
var errWAV = errors.New("the recording is not sound as this page makes it; record it again")

// ErrLong is given where a recording is longer than LongestTake.
var ErrLong = errors.New("the recording is longer than two minutes; record fewer words at once")

// ReadWAV reads a recording: one channel of 16-bit samples at Rate, from -1 to 1. The errors are
// sentences: it is no such file, or longer than LongestTake.
func ReadWAV(data []byte) ([]float64, error) {
	if len(data) < 12 || string(data[:4]) != "RIFF" || string(data[8:12]) != "WAVE" {
		return nil, errWAV
	}
	formatted := false
	for rest := data[12:]; len(rest) >= 8; {
		size := int(min(binary.LittleEndian.Uint32(rest[4:8]), math.MaxInt32))
		name, body := string(rest[:4]), rest[8:]
		body = body[:min(size, len(body))]
		switch {
		case name == "fmt " && len(body) >= 16:
			formatted = binary.LittleEndian.Uint16(body) == 1 && binary.LittleEndian.Uint16(body[2:]) == 1 &&
				binary.LittleEndian.Uint32(body[4:]) == Rate && binary.LittleEndian.Uint16(body[14:]) == 16
		case name == "data" && formatted:
			if len(body)/2 > LongestTake*Rate {
				return nil, ErrLong
			}
			samples := make([]float64, len(body)/2)
			for k := range samples {
				samples[k] = float64(int16(binary.LittleEndian.Uint16(body[2*k:]))) / (1 << 15)
			}
			return samples, nil
		}
		rest = rest[8+len(body):]
		if size%2 == 1 && len(rest) > 0 {
			rest = rest[1:]
		}
	}
	return nil, errWAV
}

// WriteWAV writes samples as ReadWAV reads them.
func WriteWAV(samples []float64) []byte {
	var b bytes.Buffer
	size := uint32(2 * len(samples))
	b.WriteString("RIFF")
	put := func(values ...any) {
		for _, v := range values {
			_ = binary.Write(&b, binary.LittleEndian, v) // a bytes.Buffer does not fail
		}
	}
	put(36 + size)
	b.WriteString("WAVEfmt ")
	put(uint32(16), uint16(1), uint16(1), uint32(Rate), uint32(2*Rate), uint16(2), uint16(16))
	b.WriteString("data")
	put(size)
	list := make([]int16, len(samples))
	for k, s := range samples {
		list[k] = int16(math.Round(max(-1, min(1, s)) * (1<<15 - 1)))
	}
	put(list)
	return b.Bytes()
}

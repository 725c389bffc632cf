package e2e

import (
	"encoding/json"
	"math"
	"testing"

	"unhurriedbench/core/voice"
)

// recorded has a page take what is sounded on its clicks for the microphone: the shipped words, with
// some noise, each begun so that its vowel falls a little before or after its click.
const recorded = `async (address, index) => {
	const context = new AudioContext(), out = context.createMediaStreamDestination();
	const { clips, mark } = await (await fetch(index)).json();
	const buffer = await new OfflineAudioContext(1, 1, 16000).decodeAudioData(await (await fetch(address)).arrayBuffer());
	const samples = buffer.getChannelData(0);
	let top = 0;
	for (let k = 0; k < 4800; k++) if (Math.abs(samples[k]) > Math.abs(samples[top])) top = k;
	const late = top / 16000 - mark;
	const hiss = context.createBuffer(1, context.sampleRate, context.sampleRate), noise = hiss.getChannelData(0);
	for (let k = 0; k < noise.length; k++) noise[k] = 0.002 * Math.sin(k * k * 0.37);
	new AudioBufferSourceNode(context, { buffer: hiss, loop: true }).connect(out);
	const source = new AudioBufferSourceNode(context, { buffer: hiss, loop: true });
	source.connect(out);
	source.start();
	navigator.mediaDevices.getUserMedia = async () => { await context.resume(); return out.stream.clone(); };
	document.addEventListener("record:begun", (event) => {
		const zero = context.currentTime;
		event.detail.words.forEach((word, k) => {
			const clip = clips[word];
			if (!clip || word === "two") return; // which is not said
			const said = new AudioBufferSourceNode(context, { buffer });
			said.connect(out);
			said.start(zero + event.detail.clicks[k] - clip.vowel + 0.06 * Math.sin(k), clip.at + late, clip.ends - clip.at);
		});
	});
}`

// A set of words is recorded, cut apart, kept, and said in a run. The shipped words, which a
// synthesiser made, stand for a teacher's: it has told where their vowels lie, and the program
// finds them on its own.
func TestAVoiceIsRecorded(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/settings/voice").MustWaitLoad()
	shipped := p.MustEval(`async () => {
		const data = await (await fetch("/bench/6/walk/data?class=1&instrument=trombone")).json();
		return data.voice;
	}`)
	sound, index := shipped.Get("sound").Str(), shipped.Get("index").Str()
	p.MustEval(recorded, sound, index)
	p.MustElement("[data-record-tempo]").MustSelect("84")
	click(p.MustElement("[data-record-all]"))
	p.MustElementR(".record-word", "^three$")
	p.MustElementR("[role=status]", "words are recorded")
	p.MustElementR("[role=status]", "Not heard: two")
	var words struct {
		Own, Shipped map[string]struct{ At, Ends, Vowel float64 }
	}
	text := p.MustEval(`async (index) => {
		const { voice } = await (await fetch("/bench/6/walk/data?class=1&instrument=trombone")).json();
		const clips = async (at) => (await (await fetch(at)).json()).clips;
		return JSON.stringify({ own: await clips(voice.own.index), shipped: await clips(index) });
	}`, index).Str()
	if err := json.Unmarshal([]byte(text), &words); err != nil {
		t.Fatal(err)
	}
	set := voice.Sets()[0].Words
	if len(words.Own) != len(set)-1 {
		t.Errorf("%d of %d words are kept", len(words.Own), len(set))
	}
	near := 0
	for word, c := range words.Own {
		want := words.Shipped[word]
		// the two are cut differently at both ends; from the vowel to the end of what sounds they agree
		if off := (c.Ends - c.At - c.Vowel) - (want.Ends - want.At - want.Vowel); math.Abs(off) < 0.05 {
			near++
		} else {
			t.Logf("%s: %.3f", word, off)
		}
	}
	if near < len(words.Own)*3/4 {
		t.Errorf("of %d words the vowel of %d is where it was made", len(words.Own), near)
	}
	said := p.MustEval(withModules(t, `async () => {
		const { voice } = await (await fetch("/bench/6/walk/data?class=1&instrument=trombone")).json();
		const words = await $spoken.load(voice);
		const out = new OfflineAudioContext(1, 16000, 16000);
		$spoken.sayOn(words, out.destination, "one", 0.3, 0.6);
		const heard = (await out.startRendering()).getChannelData(0);
		return { own: Boolean(words.clips.one.buffer), program: Boolean(words.clips.two && !words.clips.two.buffer), loud: Math.max(...heard) };
	}`))
	if !said.Get("own").Bool() || !said.Get("program").Bool() || said.Get("loud").Num() < 0.1 {
		t.Errorf("a run says %v", said)
	}
}

// The metronome: a count-off, then clicks and a cursor through the piece at
// hand. Sound and timing are Tone.js's; it is loaded at the first start.
window.metronome = (function () {
  "use strict";

  const sound = document.currentScript.dataset.sound;
  let loading = null;
  let click = null;
  let run = null; // what is playing

  function load() {
    loading = loading || new Promise((resolve, reject) => {
      const script = document.createElement("script");
      script.src = sound;
      script.onload = resolve;
      script.onerror = () => { loading = null; reject(new Error("the sound did not load")); };
      document.head.append(script);
    });
    return loading;
  }

  // fetchAhead has the browser fetch the sound while nothing else is to do.
  function fetchAhead() {
    if (document.head.querySelector("link[data-sound]")) return;
    const link = Object.assign(document.createElement("link"), { rel: "prefetch", as: "script", href: sound });
    link.dataset.sound = "";
    document.head.append(link);
  }

  // steps lists what happens when, in whole notes from the first note of the
  // piece: cues before 0, pulses from there.
  function steps(plan) {
    const list = plan.cues.map((cue) => ({ at: Number(cue.dataset.at), cue, beat: "beat" in cue.dataset }));
    let at = 0;
    for (const part of plan.plan) {
      for (const place of plan.places.filter((p) => p.measure === part.index && p.pulse.at >= part.from - 1e-6 && p.pulse.at < part.to - 1e-6)) {
        list.push({ at: at + place.pulse.at - part.from, place, beat: place.pulse.beat });
      }
      at += part.to - part.from;
    }
    return { list, end: at };
  }

  async function start(plan) {
    const mine = run = { plan };
    label(plan, window.Tone ? "Stop" : "Fetching the sound…");
    try {
      await load();
    } catch (problem) {
      if (run === mine) stop();
      window.advise("The sound could not be fetched, so there is no count-off yet. Press Start again when the network is back; marks work without it.");
      return;
    }
    if (run !== mine) return;
    label(plan, "Stop");
    try {
      await Tone.start();
    } catch (problem) {
      if (run === mine) stop();
      window.advise("This browser does not let the page make a sound. Allow sound for this page, then press Start again.");
      return;
    }
    if (run !== mine) return;
    click = click || new Tone.Synth({ oscillator: { type: "triangle" }, envelope: { attack: 0.001, decay: 0.06, sustain: 0, release: 0.03 }, volume: -4 }).toDestination();
    const { list, end } = steps(plan);
    const second = 60 / plan.tempo / plan.data.beat; // of a whole note
    const first = Math.min(0, ...list.map((step) => step.at));
    const transport = Tone.getTransport();
    transport.cancel(0);
    transport.stop();
    Tone.getDraw().expiration = 1; // a slow machine shows the pulse late rather than not at all
    for (const step of list) {
      transport.schedule((time) => {
        if (step.beat) click.triggerAttackRelease(step.cue ? "G5" : "D5", 0.04, time);
        Tone.getDraw().schedule(() => { if (run === mine) show(plan, step); }, time);
      }, (step.at - first) * second);
    }
    transport.schedule((time) => Tone.getDraw().schedule(() => { if (run === mine) stop(); }, time), (end - first) * second);
    transport.start("+0.25");
  }

  function show(plan, step) {
    for (const cue of plan.cues) cue.classList.toggle("now", cue === step.cue);
    if (step.cue && step.beat) label(plan, step.cue.firstChild.textContent);
    if (!step.place) return;
    label(plan, "Stop");
    document.dispatchEvent(new CustomEvent("bench:pulse", { detail: { measure: step.place.measure, at: step.place.pulse.at } }));
    const svg = plan.host.querySelector("svg.lanes");
    if (!svg) return;
    let cursor = svg.querySelector(".cursor");
    if (!cursor) {
      cursor = window.lanes.make("rect", { class: "cursor", width: 26, rx: 6 });
      svg.prepend(cursor);
    }
    cursor.setAttribute("x", step.place.x - 13);
    cursor.setAttribute("y", step.place.top);
    cursor.setAttribute("height", step.place.bottom - step.place.top);
    cursor.dataset.pulse = step.place.pulse.id;
    follow(plan.host, step.place);
  }

  // follow brings the next system into view when the cursor reaches it.
  function follow(host, place) {
    const top = host.getBoundingClientRect().top + place.top;
    const bottom = host.getBoundingClientRect().top + place.bottom;
    const bar = document.querySelector(".at-once");
    const fixed = bar && getComputedStyle(bar).position === "fixed" ? bar.offsetHeight : 0;
    const covered = fixed + (document.querySelector(".look:not([hidden])")?.offsetHeight || 0);
    if (bottom > window.innerHeight - covered || top < 0) window.scrollBy({ top: top - 80 });
  }

  function label(plan, word) {
    const text = plan.button.querySelector("[data-play-word]");
    if (text) text.textContent = word;
    plan.button.classList.toggle("playing", run !== null);
  }

  function stop() {
    if (!run) return;
    const { plan } = run;
    run = null;
    if (window.Tone) { Tone.getTransport().stop(); Tone.getTransport().cancel(0); }
    for (const cue of plan.cues) cue.classList.remove("now");
    plan.host.querySelector(".cursor")?.remove();
    label(plan, "Start the count-off");
    document.dispatchEvent(new CustomEvent("bench:stopped"));
  }

  function running() { return run !== null; }

  return { start, stop, running, fetchAhead };
})();

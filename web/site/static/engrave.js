// Loads the engraver once and draws MEI into an element.

const files = document.querySelector("[data-engraver]")?.dataset ?? {}; // where the page says the engraver lies
let ready = null;

// load fetches the engraver's script and its code side by side; the browser
// compiles the code while it comes. After a failure the next call tries again.
function load() {
  ready = ready || new Promise((resolve, reject) => {
    const failed = () => reject(Object.assign(new Error("the engraver did not load"), { away: true }));
    window.engraverCode = { comes: fetch(files.code), failed };
    window.engraverCode.comes.catch(failed);
    const script = document.createElement("script");
    script.src = files.script;
    script.onerror = failed;
    script.onload = () => {
      const start = () => resolve(new verovio.toolkit());
      if (verovio.module.calledRun) start();
      else verovio.module.onRuntimeInitialized = start;
    };
    document.head.append(script);
  }).catch((problem) => { ready = null; throw problem; });
  return ready;
}

// draw engraves mei at the element's width and returns its svg.
async function draw(element, mei, options) {
  const toolkit = await load();
  const scale = options.scale || 45;
  toolkit.setOptions(Object.assign({
    pageWidth: Math.max(300, element.clientWidth) * 100 / scale,
    pageHeight: 60000, adjustPageHeight: true, scale: scale, svgViewBox: true,
    pageMarginLeft: 0, pageMarginRight: 0, pageMarginTop: 20, pageMarginBottom: 20,
    header: "none", footer: "none", breaks: "auto", mnumInterval: 1, minLastJustification: 0.6,
    adjustPageWidth: false, spacingLinear: 0.25, spacingNonLinear: 0.6, // options stay from one drawing to the next
  }, options.engraver));
  toolkit.loadData(mei);
  element.innerHTML = toolkit.renderToSVG(1);
  return element.querySelector("svg");
}

function drawPreviews() {
  for (const element of document.querySelectorAll(".engraving[data-mei]")) {
    const mei = element.dataset.mei;
    element.removeAttribute("data-mei");
    draw(element, mei, { scale: 40, engraver: {} }).catch((problem) => { element.textContent = "The preview cannot be drawn. Load the page again."; failed(problem); });
  }
}
document.addEventListener("DOMContentLoaded", drawPreviews);
document.addEventListener("htmx:afterSettle", drawPreviews);

// failed reports what kept music from being drawn to the administrator: a
// reader is told what to do instead. That the network is away is no fault to report.
function failed(problem) {
  if (!problem.away) console.error("[Error] " + problem.stack);
}

export { load, draw, failed };

// What a page says in the place where it gives advice.

export function advise(text) {
  const advice = document.querySelector(".advice, .stand-advice");
  if (!advice) return;
  advice.textContent = text;
  advice.classList.add("told"); // a small screen has it at the thumb, until something is pressed
}

document.addEventListener("pointerdown", () => document.querySelector(".advice.told")?.classList.remove("told"));

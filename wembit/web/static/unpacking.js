// A parcel as a box: a touched pack goes onto its board, touched again back into the box; the field counts what is out. Until
// one is touched all of it counts, as it was ordered.
(() => {
  const form = document.getElementById("unpacking");
  if (!form) return;
  const box = form.querySelector(".parcel");
  const rows = [...form.querySelectorAll("fieldset")];
  const packs = [...box.querySelectorAll(".pack")];
  const button = form.querySelector(".ink");
  const still = matchMedia("(prefers-reduced-motion: reduce)");
  let unpacking = false;

  const number = (text) => parseFloat(text.replace(",", "."));
  const unit = (text) => text.replace(/^[\d.,]+/, "");
  const field = (row) => rows[row].querySelector("input.num");
  const board = (row) => rows[row].querySelector(".out");
  const out = (row) => board(row).querySelectorAll(".pack").length;

  function say() {
    const there = packs.filter((each) => each.parentElement !== box).length;
    if (!unpacking) button.textContent = packs.length === 1 ? "On the shelf" : `All ${packs.length} packs on the shelf`;
    else button.textContent = `${there} of ${packs.length} packs on the shelf`;
  }

  function count(row) {
    const pack = rows[row].dataset.pack;
    const amount = String(Math.round(out(row) * number(pack) * 1000) / 1000);
    field(row).value = (pack.includes(",") ? amount.replace(".", ",") : amount) + unit(pack);
  }

  function put(pack, where) {
    const from = pack.getBoundingClientRect();
    where.append(pack);
    pack.setAttribute("aria-pressed", where !== box);
    if (still.matches) return;
    const to = pack.getBoundingClientRect();
    const moved = `translate(${from.x - to.x}px, ${from.y - to.y}px)`;
    pack.animate([{ transform: moved }, { transform: "none" }], { duration: 200, easing: "ease-out" });
  }

  box.hidden = false;
  form.querySelector(".parcel-words").hidden = false;
  rows.forEach((row) => (board(row.dataset.row).hidden = false));
  // What was entered before and came back stands where it was.
  const whole = (row) => rows[row].dataset.count * number(rows[row].dataset.pack);
  const asOrdered = (row) => Math.abs(number(field(row).value) - whole(row)) < 1e-6;
  unpacking = !rows.every((row) => asOrdered(row.dataset.row));
  if (unpacking) {
    for (const pack of packs) {
      const row = pack.dataset.row;
      if ((out(row) + 0.5) * number(rows[row].dataset.pack) < number(field(row).value)) {
        board(row).append(pack);
        pack.setAttribute("aria-pressed", true);
      }
    }
  }
  say();

  form.addEventListener("click", (event) => {
    const pack = event.target.closest(".pack");
    if (!pack) return;
    if (!unpacking) {
      unpacking = true;
      rows.forEach((row) => (field(row.dataset.row).value = "0"));
    }
    const row = pack.dataset.row;
    put(pack, pack.parentElement === box ? board(row) : box);
    pack.focus();
    count(row);
    say();
  });
})();

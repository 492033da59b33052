// A list that many fields of a page share is filled in when one of them is opened.
(() => {
  const fill = (event) => {
    const field = event.target.closest?.("select[data-list]");
    const list = field && document.getElementById(field.dataset.list);
    if (!list) return;
    field.append(list.content.cloneNode(true));
    delete field.dataset.list;
  };
  ["pointerdown", "focusin"].forEach((name) => document.addEventListener(name, fill, true));
})();

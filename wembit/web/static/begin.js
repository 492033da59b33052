// A button that fills a field, and clears the others beside it, as if it had been typed.
document.addEventListener("click", (event) => {
  const button = event.target.closest("[data-fill]");
  if (!button) return;
  const field = document.getElementById(`f-${button.dataset.fill}`);
  document.getElementById("f-grams").value = "";
  field.value = button.dataset.with;
  field.dispatchEvent(new Event("change", { bubbles: true }));
});

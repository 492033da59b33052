// The colour map: the ground asks for the colour under the finger; lists of the sieve act at once.
(() => {
  document.addEventListener("change", (event) => {
    if (event.target.matches("[data-submit]")) event.target.form.requestSubmit();
    if (event.target.matches("[data-into]"))
      document.getElementById(event.target.dataset.into).value = event.target.value;
  });

  document.addEventListener("click", (event) => {
    if (event.target.id !== "ground") return;
    const map = document.getElementById("map");
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(map.getScreenCTM().inverse());
    const address = new URL(map.dataset.touched, location.href);
    address.search = location.search;
    Object.entries({ x: at.x.toFixed(1), y: at.y.toFixed(1), rim: map.dataset.rim }).forEach(([name, value]) =>
      address.searchParams.set(name, value),
    );
    location.assign(address);
  });
})();

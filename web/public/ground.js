// Sets the ground before the first paint, so that a night kitchen is not lit up by a white flash.
(() => {
  const wished = localStorage.getItem("tern.ground");
  const dark = wished ? wished === "dark" : matchMedia("(prefers-color-scheme: dark)").matches;
  document.documentElement.dataset.ground = dark ? "dark" : "light";
})();

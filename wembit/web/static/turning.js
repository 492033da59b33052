// A figure turns under finger, mouse and keys: drawn as faces on a canvas while it moves, felted by the server at rest.
(() => {
  const STEP = 15;
  const REST_MS = 160;
  const DEGREES_A_WIDTH = 200; // a drag over the whole board
  const ARROWS = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, STEP], ArrowDown: [0, -STEP] };
  const boards = new WeakMap();

  const radians = (degrees) => (degrees * Math.PI) / 180;

  class Board {
    constructor(root) {
      this.root = root;
      this.canvas = root.querySelector("canvas");
      this.turn = Number(this.svg.dataset.turn);
      this.tilt = Number(this.svg.dataset.tilt);
      this.mesh = null;
    }

    get svg() {
      return this.root.querySelector("svg.turned");
    }

    async load() {
      if (!this.loading) {
        this.loading = fetch(this.root.dataset.mesh)
          .then((answer) => (answer.ok ? answer.json() : null))
          .then((mesh) => mesh && !mesh.fault && this.take(mesh))
          .catch(() => {
            this.loading = null; // no line: the next touch asks again
          });
      }
      return this.loading;
    }

    take(mesh) {
      const corners = new Map();
      let at = 0;
      this.neighbours = mesh.faces.map((face) => new Int32Array(face.length - 1).fill(-1));
      this.lift = new Float32Array(mesh.faces.length);
      for (const [piece, count] of mesh.pieces.entries()) {
        this.lift.fill(mesh.lifts[piece], at, at + count);
        corners.clear();
        for (let f = at; f < at + count; f += 1) {
          const face = mesh.faces[f];
          for (let k = 1; k < face.length; k += 1) {
            corners.set(face[k] * 1e6 + face[k === face.length - 1 ? 1 : k + 1], f);
          }
        }
        if (count > 1) {
          for (let f = at; f < at + count; f += 1) {
            const face = mesh.faces[f];
            for (let k = 1; k < face.length; k += 1) {
              const other = corners.get(face[k === face.length - 1 ? 1 : k + 1] * 1e6 + face[k]);
              this.neighbours[f][k - 1] = other === undefined ? -2 : other;
            }
          }
        }
        at += count;
      }
      this.flat = new Float32Array(mesh.points.length);
      this.near = new Float32Array(mesh.bands.length + mesh.strokes.length);
      let begin = 0;
      this.begins = mesh.bands.map((count) => (begin += count) - count);
      let first = 0;
      this.facesOf = mesh.pieces.map((count) => [first, (first += count)]);
      let piece = 0;
      this.pieceOf = this.begins.map((face) => {
        while (face >= this.facesOf[piece][1]) piece += 1;
        return piece;
      });
      this.seen = new Uint8Array(mesh.faces.length);
      this.mesh = mesh;
    }

    // Look from there; the canvas shows it at once, the server's drawing follows when it rests.
    async look(turn, tilt) {
      this.turn = ((turn % 360) + 360) % 360;
      this.tilt = Math.max(-90, Math.min(90, tilt));
      clearTimeout(this.resting);
      this.resting = setTimeout(() => this.rest(), REST_MS);
      this.tellSteps();
      if (!this.mesh) await this.load();
      if (this.mesh && !this.due) {
        this.due = true;
        requestAnimationFrame(() => {
          this.due = false;
          if (this.moved()) this.draw();
        });
      }
    }

    moved() {
      const { turn, tilt } = this.svg.dataset;
      return Math.round(this.turn) !== Number(turn) || Math.round(this.tilt) !== Number(tilt);
    }

    tellSteps() {
      for (const link of this.root.querySelectorAll("[data-step]")) {
        const [dx, dy] = { "←": [-STEP, 0], "→": [STEP, 0], "↑": [0, STEP], "↓": [0, -STEP] }[link.dataset.step];
        link.dataset.turn = (Math.round(this.turn) + dx + 360) % 360;
        link.dataset.tilt = Math.max(-90, Math.min(90, Math.round(this.tilt) + dy));
      }
    }

    async rest() {
      if (this.held) return;
      const [turn, tilt] = [Math.round(this.turn), Math.round(this.tilt)];
      this.asked?.abort();
      this.asked = new AbortController();
      try {
        const answer = await fetch(`${this.root.dataset.drawn}turn=${turn}&tilt=${tilt}`, { signal: this.asked.signal });
        if (!answer.ok) return;
        const drawn = new DOMParser().parseFromString(await answer.text(), "text/html").querySelector("svg");
        this.svg.replaceWith(drawn);
        this.canvas.hidden = true;
        this.svg.classList.remove("behind");
      } catch {
        // Another turn came, or there is no line: the faces stay until it rests again.
      }
    }

    draw() {
      const { mesh, flat, near, seen, canvas } = this;
      const box = this.svg.getBoundingClientRect();
      const [width, height] = [Math.round(box.width), Math.round(box.height)]; // the sharp drawing follows at rest
      if (canvas.width !== width || canvas.height !== height) {
        canvas.width = width;
        canvas.height = height;
      }
      const pen = canvas.getContext("2d");
      const scale = Math.min(width / (2 * mesh.wide), height / (2 * mesh.half));
      const [a, b] = [radians(this.turn), radians(this.tilt)];
      const [sa, ca, sb, cb] = [Math.sin(a), Math.cos(a), Math.sin(b), Math.cos(b)];
      const middle = (cb * mesh.high) / 2;
      const [cx, cy] = [width / 2, height / 2 + middle * scale];
      const put = (x, y, z) => [cx + (x * ca + y * sa) * scale, cy - (-x * sa * sb + y * ca * sb + z * cb) * scale];

      pen.setTransform(1, 0, 0, 1, 0, 0);
      pen.clearRect(0, 0, width, height);
      pen.lineJoin = "bevel";
      if (sb >= 0) this.ground(pen, put);

      const points = mesh.points;
      for (let p = 0; p < points.length; p += 3) {
        const [x, y, z] = [points[p] / 10, points[p + 1] / 10, points[p + 2] / 10];
        flat[p] = cx + (x * ca + y * sa) * scale;
        flat[p + 1] = cy - (-x * sa * sb + y * ca * sb + z * cb) * scale;
        flat[p + 2] = x * sa * cb - y * ca * cb + z * sb;
      }
      const order = [];
      const faces = mesh.faces;
      let f = 0;
      for (let band = 0; band < mesh.bands.length; band += 1) {
        let [depth, count] = [0, 0];
        for (const end = f + mesh.bands[band]; f < end; f += 1) {
          const face = faces[f];
          let [area, sum] = [0, 0];
          for (let k = 1; k < face.length; k += 1) {
            const p = face[k] * 3;
            const q = face[k === face.length - 1 ? 1 : k + 1] * 3;
            area += flat[p] * flat[q + 1] - flat[q] * flat[p + 1];
            sum += flat[p + 2];
          }
          seen[f] = area < 0 ? 1 : 0; // y runs down on a screen
          if (seen[f]) {
            depth += sum / (face.length - 1) + this.lift[f];
            count += 1;
          }
        }
        if (count) {
          near[band] = depth / count;
          order.push(band);
        }
      }
      const bands = mesh.bands.length;
      for (let each = 0; each < mesh.strokes.length; each += 1) {
        const stroke = mesh.strokes[each];
        let depth = 0;
        for (let k = 2; k < stroke.length; k += 1) depth += flat[stroke[k] * 3 + 2];
        near[bands + each] = depth / (stroke.length - 2) + 0.5;
        order.push(bands + each);
      }
      this.under = new Uint8Array(mesh.pieces.length);
      order.sort((one, two) => near[one] - near[two]);
      for (const each of order) {
        if (each < bands) this.band(pen, each);
        else this.stroke(pen, mesh.strokes[each - bands], scale);
      }
      this.canvas.hidden = false;
      this.svg.classList.add("behind");
    }

    ground(pen, put) {
      const style = getComputedStyle(this.root);
      const ring = (flatPoints) => {
        pen.beginPath();
        for (let k = 0; k < flatPoints.length; k += 2) pen.lineTo(...put(flatPoints[k], flatPoints[k + 1], 0));
        pen.closePath();
      };
      pen.fillStyle = style.getPropertyValue("--shadow");
      for (const each of this.mesh.shadow) {
        ring(each);
        pen.fill();
      }
      pen.fillStyle = style.getPropertyValue("--paper");
      pen.strokeStyle = style.getPropertyValue("--edge");
      pen.lineWidth = 1.5;
      ring(this.mesh.coin);
      pen.fill();
      pen.stroke();
    }

    // The faces from `begin` to `end` that are seen, those of one colour as one shape.
    fill(pen, begin, end) {
      const { mesh, flat, seen } = this;
      let [first, paint] = [-1, -1];
      for (let f = begin; f < end; f += 1) {
        if (!seen[f]) continue;
        const face = mesh.faces[f];
        if (face[0] !== paint) {
          if (paint < 0) first = face[0];
          else pen.fill();
          paint = face[0];
          pen.fillStyle = mesh.paints[paint] || "#888";
          pen.beginPath();
        }
        pen.moveTo(flat[face[1] * 3], flat[face[1] * 3 + 1]);
        for (let k = 2; k < face.length; k += 1) pen.lineTo(flat[face[k] * 3], flat[face[k] * 3 + 1]);
        pen.closePath();
      }
      if (paint >= 0) pen.fill();
      return first;
    }

    // A band, then the lines where it turns away. Under the first band of a piece lies all of it, so that no gap is seen.
    band(pen, band) {
      const { mesh, flat, seen, neighbours } = this;
      const [begin, end] = [this.begins[band], this.begins[band] + mesh.bands[band]];
      const after = (face, k) => face[k === face.length - 1 ? 1 : k + 1] * 3;
      const piece = this.pieceOf[band];
      if (!this.under[piece]) {
        this.under[piece] = 1;
        this.fill(pen, ...this.facesOf[piece]);
      }
      const paint = this.fill(pen, begin, end);
      if (neighbours[begin][0] === -1) {
        pen.strokeStyle = pen.fillStyle; // the pieces of a mark have no gaps
        pen.lineWidth = 1.5;
        pen.stroke();
      }
      let outlined = false;
      for (let f = begin; f < end; f += 1) {
        if (!seen[f]) continue;
        const face = mesh.faces[f];
        for (let k = 1; k < face.length; k += 1) {
          const other = neighbours[f][k - 1];
          if (other === -1 || (other >= 0 && seen[other])) continue;
          if (!outlined) pen.beginPath();
          outlined = true;
          pen.moveTo(flat[face[k] * 3], flat[face[k] * 3 + 1]);
          pen.lineTo(flat[after(face, k)], flat[after(face, k) + 1]);
        }
      }
      if (outlined) {
        pen.strokeStyle = `rgba(27, 27, 27, ${mesh.edges[paint]})`;
        pen.lineWidth = 1.1;
        pen.stroke();
      }
    }

    stroke(pen, stroke, scale) {
      const { mesh, flat } = this;
      pen.beginPath();
      for (let k = 2; k < stroke.length; k += 1) pen.lineTo(flat[stroke[k] * 3], flat[stroke[k] * 3 + 1]);
      pen.strokeStyle = mesh.paints[stroke[0]];
      pen.lineWidth = Math.max(1, stroke[1] * scale);
      pen.stroke();
    }
  }

  function boardOf(target) {
    const root = target.closest?.("[data-turntable]");
    if (!root) return null;
    if (!boards.has(root)) boards.set(root, new Board(root));
    return boards.get(root);
  }

  document.addEventListener("pointerdown", (event) => {
    const board = event.target.closest?.(".turn-stand") && boardOf(event.target);
    if (!board || event.button) return;
    board.root.focus({ preventScroll: true });
    board.load();
    board.held = { x: event.clientX, y: event.clientY, turn: board.turn, tilt: board.tilt };
    event.target.closest(".turn-stand").setPointerCapture(event.pointerId);
  });
  document.addEventListener("pointermove", (event) => {
    const board = boardOf(event.target);
    if (!board?.held) return;
    const { x, y, turn, tilt } = board.held;
    const degree = DEGREES_A_WIDTH / board.svg.parentElement.clientWidth;
    board.look(turn - (event.clientX - x) * degree, tilt + (event.clientY - y) * degree);
  });
  for (const end of ["pointerup", "pointercancel"]) {
    document.addEventListener(end, (event) => {
      const board = boardOf(event.target);
      if (!board?.held) return;
      board.held = null;
      if (board.moved()) board.look(board.turn, board.tilt);
    });
  }

  document.addEventListener(
    "keydown",
    (event) => {
      if (!event.target.matches?.("[data-turntable]") || event.ctrlKey || event.metaKey || event.altKey) return;
      const board = boardOf(event.target);
      const arrow = ARROWS[event.key];
      const link = board.root.querySelector(`[data-key="${CSS.escape(event.key.toUpperCase())}"]`);
      if (!arrow && !link) return;
      event.preventDefault();
      event.stopPropagation();
      const fine = event.shiftKey ? 1 / 3 : 1;
      if (arrow) board.look(board.turn + arrow[0] * fine, board.tilt + arrow[1] * fine);
      else board.look(Number(link.dataset.turn), Number(link.dataset.tilt));
    },
    true,
  );

  document.addEventListener("click", (event) => {
    const link = event.target.closest?.("a[data-turn]");
    const board = link && boardOf(link);
    if (!board || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    board.look(Number(link.dataset.turn), Number(link.dataset.tilt));
  });
})();

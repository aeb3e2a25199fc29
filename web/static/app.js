// The page without scripts works by plain forms and links. live.js makes them
// answer in place; here the quick line says what it read, numbers open their
// working, snags lead to the thing, drawings are dragged, keys do all of it.
(function () {
  "use strict";
  document.documentElement.classList.add("js");
  const $ = (s, r) => (r || document).querySelector(s);
  const $$ = (s, r) => Array.from((r || document).querySelectorAll(s));
  const { go, send, typing, shortcut } = window.live;

  document.addEventListener("swapped", clearLeader);
  document.addEventListener("sending", (e) => { if (e.detail.matches(".quick")) remember($("#line").value); });
  document.addEventListener("click", (e) => {
    const w = e.target.closest("[data-working]");
    if (!w || e.ctrlKey || e.metaKey) return;
    e.preventDefault();
    working(w.getAttribute("href"));
  });

  async function working(url) {
    const r = await fetch(url, { headers: { "X-Fragment": "1" } });
    const d = $("#working");
    $("[data-into]", d).innerHTML = r.ok ? await r.text() : "<p>That number is gone; load the page again.</p>";
    d.showModal();
  }

  // leaders: a dashed line from the snag pointed at to its thing
  function clearLeader() { $$(".leader").forEach((l) => l.remove()); }
  function leader(snag) {
    clearLeader();
    const keys = (snag.dataset.snag || "").split(" ");
    const from = snag.getBoundingClientRect();
    const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
    svg.setAttribute("class", "leader");
    keys.slice(0, 3).forEach((k) => {
      const t = $(`.surface [data-key="${CSS.escape(k)}"]`) || $(`.surface [data-key^="${CSS.escape(k.replace("solid:", "part:"))}/"]`);
      if (!t) return;
      const b = t.getBoundingClientRect();
      const p = document.createElementNS("http://www.w3.org/2000/svg", "path");
      const x = b.left + b.width / 2, y = b.top + b.height / 2;
      p.setAttribute("d", `M${from.left} ${from.top + 16}L${(from.left - 40)} ${from.top + 16}L${x} ${y}`);
      svg.append(p);
    });
    document.body.append(svg);
  }
  document.addEventListener("mouseover", (e) => { const s = e.target.closest && e.target.closest(".gutter .snag"); if (s) leader(s); });
  document.addEventListener("mouseout", (e) => { if (e.target.closest && e.target.closest(".gutter .snag")) clearLeader(); });
  document.addEventListener("focusin", (e) => { const s = e.target.closest && e.target.closest(".gutter .snag"); if (s) leader(s); else clearLeader(); });

  // several lines: read as they are typed, done all or none
  function several(text) {
    const d = $("#lines"), f = $("form", d);
    f.action = "/p/" + $("#page").dataset.plan + "/lines";
    f.back.value = $(".quick [name=back]").value;
    f.prop.value = $(".quick [name=prop]").value;
    f.lines.value = text;
    d.showModal();
    readSeveral();
  }
  async function readSeveral() {
    const d = $("#lines"), f = $("form", d), text = f.lines.value;
    const r = await (await fetch("/p/" + $("#page").dataset.plan + "/read", { method: "POST", body: new URLSearchParams({ prop: f.prop.value, lines: text }) })).json();
    if (f.lines.value !== text) return;
    $("ol", d).replaceChildren(...(r.lines || []).map((l) => {
      const li = document.createElement("li");
      li.className = l.error ? "bad" : "";
      li.textContent = (l.error ? "✕ " : "✓ ") + l.line + ": " + (l.error || l.text);
      return li;
    }));
    $("[data-all]", d).disabled = !r.good;
  }
  let reading = 0;
  document.addEventListener("input", (e) => { if (e.target.matches("#lines textarea")) { clearTimeout(reading); reading = setTimeout(readSeveral, 200); } });
  document.addEventListener("click", (e) => { if (e.target.closest("[data-shut]")) e.target.closest("dialog").close(); });
  document.addEventListener("sending", (e) => { if (e.detail.matches("[data-lines]")) $("#lines").close(); });

  // the ticket folds away, and stays so
  function folded(on) {
    document.documentElement.classList.toggle("folded", on);
    const b = $("[data-fold]");
    if (!b) return;
    b.textContent = on ? "Unfold" : "Fold";
    b.setAttribute("aria-expanded", String(!on));
  }
  const keptFold = () => { try { return localStorage.getItem("folded") === "yes"; } catch { return false; } };
  function settleFold() {
    folded(keptFold());
    const here = $(".props a.on");
    if (here) here.scrollIntoView({ block: "nearest", inline: "nearest" });
  }
  document.addEventListener("click", (e) => {
    if (!e.target.closest("[data-fold]")) return;
    const on = !keptFold();
    try { localStorage.setItem("folded", on ? "yes" : "no"); } catch { /* it folds all the same */ }
    folded(on);
  });
  document.addEventListener("swapped", settleFold);
  document.addEventListener("DOMContentLoaded", settleFold);

  // drawings that come when they are looked at
  const looked = new IntersectionObserver((seen) => {
    for (const e of seen) {
      if (!e.isIntersecting) continue;
      looked.unobserve(e.target);
      fetch(e.target.dataset.later).then(async (r) => { if (r.ok) { e.target.innerHTML = await r.text(); e.target.classList.remove("later"); } });
    }
  }, { rootMargin: "300px" });
  function awaitLooks() { $$("[data-later].later").forEach((d) => looked.observe(d)); }
  document.addEventListener("swapped", awaitLooks);
  document.addEventListener("DOMContentLoaded", awaitLooks);

  // pulling a drawing apart
  document.addEventListener("input", (e) => {
    if (!e.target.matches("[data-explode]")) return;
    const k = e.target.value / 100;
    $$(".surface .body").forEach((b) => b.setAttribute("transform", `translate(${b.dataset.dx * k} ${b.dataset.dy * k})`));
  });

  // sheets: a piece is dragged, or moved by keys, and the barn says where it may lie
  function layAs(piece, sheet, x, y, turned, flip, verb) {
    const f = $("#lay");
    f.elements.stock.value = sheet.dataset.stock;
    f.elements.piece.value = piece.dataset.piece;
    f.elements.sheet.value = sheet.dataset.sheet;
    f.elements.x.value = x; f.elements.y.value = y;
    f.elements.turned.value = turned; f.elements.flip.value = flip;
    f.elements.do.value = verb || "move";
    send(f);
  }
  let drag = null, dropped = -1000;
  document.addEventListener("click", (e) => { if (performance.now() - dropped < 80 && e.target.closest("svg")) { e.preventDefault(); e.stopPropagation(); } }, true);
  function userPoint(svg, e) { return new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse()); }
  document.addEventListener("pointerdown", (e) => {
    const piece = e.target.closest && e.target.closest("a[data-piece]");
    if (!piece || e.button) return;
    const svg = piece.ownerSVGElement;
    drag = { piece, svg, from: userPoint(svg, e), moved: false };
  });
  document.addEventListener("dragstart", (e) => { if (e.target.closest && e.target.closest("a[data-piece]")) e.preventDefault(); });
  document.addEventListener("pointermove", (e) => {
    if (!drag) return;
    const p = userPoint(drag.svg, e);
    const dx = p.x - drag.from.x, dy = p.y - drag.from.y;
    if (!drag.moved && Math.hypot(dx, dy) < 4) return;
    if (!drag.moved) { drag.moved = true; drag.piece.classList.add("held"); drag.piece.parentNode.parentNode.append(drag.piece.parentNode); drag.piece.parentNode.append(drag.piece); }
    e.preventDefault();
    drag.piece.setAttribute("transform", `translate(${dx} ${dy})`);
    drag.at = { dx, dy };
  });
  document.addEventListener("pointerup", (e) => {
    const d = drag;
    drag = null;
    if (!d || !d.moved) return;
    d.piece.classList.remove("held");
    const home = d.piece.closest("[data-sheet]"), s = d.piece.dataset, turned = s.turned === "true";
    const w = Number(turned ? s.ph : s.pw), h = Number(turned ? s.pw : s.ph);
    const g = home.dataset, sc = Number(g.sc);
    const left = Number(g.x) + Number(s.px) * sc + d.at.dx, low = Number(g.y) + (Number(g.h) - Number(s.py)) * sc + d.at.dy;
    const mid = { x: left + (w * sc) / 2, y: low - (h * sc) / 2 };
    const to = $$("[data-sheet]", d.svg).find((q) => {
      const k = q.dataset;
      return k.stock === g.stock && !k.cut && mid.x >= Number(k.x) && mid.x <= Number(k.x) + Number(k.w) * Number(k.sc) && mid.y >= Number(k.y) && mid.y <= Number(k.y) + Number(k.h) * Number(k.sc);
    });
    dropped = performance.now();
    if (!to) { d.piece.removeAttribute("transform"); return; }
    const k = to.dataset;
    layAs(d.piece, to, (left - Number(k.x)) / Number(k.sc), Number(k.h) - (low - Number(k.y)) / Number(k.sc), s.turned, s.flip);
  });
  document.addEventListener("keydown", (e) => {
    const piece = e.target.closest && e.target.closest("a[data-piece]");
    if (!piece || e.ctrlKey || e.metaKey || e.altKey) return;
    const s = piece.dataset, sheet = piece.closest("[data-sheet]"), step = e.shiftKey ? 3.175 : 25.4;
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key];
    let turned = s.turned, flip = s.flip, verb;
    if (!by) {
      const k = e.key.toLowerCase();
      if (k === "r" && s.turn === "true") turned = String(s.turned !== "true");
      else if (k === "f") flip = String(s.flip !== "true");
      else if (k === "l") verb = "loose";
      else return;
    }
    e.preventDefault();
    e.stopPropagation();
    layAs(piece, sheet, Number(s.px) + (by ? by[0] * step : 0), Number(s.py) + (by ? by[1] * step : 0), turned, flip, verb);
  }, true);

  // pictures: points are dragged; lengths are measured off what is to scale
  function inches(mm) {
    const n = Math.round(Math.abs(mm) / 25.4 * 8), whole = Math.floor(n / 8);
    let a = n % 8, b = 8;
    while (a && a % 2 === 0) { a /= 2; b /= 2; }
    return (whole || !a ? whole : "") + (a ? (whole ? " " : "") + a + "/" + b : "") + " in";
  }
  function movePoint(name, x, y) {
    const f = $("#point");
    f.elements.x.value = x; f.elements.y.value = y;
    $("input[name=handle]", f).value = name;
    send(f);
  }
  let grip = null, ruler = null;
  document.addEventListener("pointerdown", (e) => {
    if (!e.target.closest || e.button) return;
    const h = e.target.closest("[data-handle]"), svg = e.target.closest("svg.picture");
    if (h) { grip = { h, svg: h.ownerSVGElement }; e.preventDefault(); h.focus(); return; }
    if (svg && svg.hasAttribute("data-ruler")) { ruler = { svg, from: userPoint(svg, e) }; e.preventDefault(); }
  });
  document.addEventListener("pointermove", (e) => {
    if (grip) {
      const p = userPoint(grip.svg, e);
      grip.at = p;
      grip.h.setAttribute("transform", `translate(${p.x} ${p.y})`);
    } else if (ruler) {
      const p = userPoint(ruler.svg, e), a = ruler.from;
      const mm = Math.hypot(p.x - a.x, p.y - a.y) * Number(ruler.svg.dataset.per);
      ruler.text = ruler.svg.dataset.metric === "true" ? Math.round(mm) + " mm" : inches(mm);
      ruler.mm = mm;
      const g = $(".rule-line", ruler.svg);
      g.innerHTML = "";
      const ns = "http://www.w3.org/2000/svg";
      const add = (tag, at, text) => { const n = document.createElementNS(ns, tag); for (const k in at) n.setAttribute(k, at[k]); if (text) n.textContent = text; g.append(n); };
      add("line", { class: "ruled", x1: a.x, y1: a.y, x2: p.x, y2: p.y });
      add("text", { class: "halo", x: p.x + 14, y: p.y - 10 }, ruler.text);
      add("text", { class: "t lbl", x: p.x + 14, y: p.y - 10 }, ruler.text);
    }
  });
  document.addEventListener("pointerup", () => {
    const g = grip, r = ruler;
    grip = ruler = null;
    if (g && g.at) movePoint(g.h.dataset.handle, g.at.x, g.at.y);
    if (r && r.mm > 5) {
      const li = document.createElement("li"), b = document.createElement("button");
      b.type = "button"; b.className = "btn thin"; b.textContent = r.text; b.title = "Put it in the quick line";
      b.addEventListener("click", () => { const l = $("#line"); l.value = (l.value.trim() + (/ in$| mm$|^\w+$/.test(l.value.trim()) && /\d/.test(l.value) ? " x " : " ") + r.text).trim(); l.focus(); l.dispatchEvent(new Event("input", { bubbles: true })); });
      li.append(b);
      $(".sizes").prepend(li);
    }
  });
  document.addEventListener("keydown", (e) => {
    const h = e.target.closest && e.target.closest("[data-handle]");
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!h || !by) return;
    e.preventDefault();
    e.stopPropagation();
    const m = h.transform.baseVal.consolidate().matrix, k = e.shiftKey ? 10 : 1;
    movePoint(h.dataset.handle, m.e + by[0] * k, m.f + by[1] * k);
  }, true);
  document.addEventListener("input", (e) => { if (e.target.matches("[data-fade]")) $(".overlay").setAttribute("opacity", e.target.value / 100); });

  // lamps slide along their run, and supplies along the run they feed; every volt on the board follows
  let slide = null, asking = 0;
  function slideTo(a, at) {
    const f = $("#slide");
    f.elements.device.value = a.dataset.slide;
    f.elements.at.value = at;
    send(f);
  }
  document.addEventListener("pointerdown", (e) => {
    const a = e.target.closest && e.target.closest("a[data-slide]");
    if (!a || e.button) return;
    slide = { a, svg: a.ownerSVGElement, from: userPoint(a.ownerSVGElement, e), mm: null };
  });
  document.addEventListener("pointermove", async (e) => {
    if (!slide) return;
    const s = slide, d = s.a.dataset, dx = userPoint(s.svg, e).x - s.from.x;
    if (s.mm === null && Math.abs(dx) < 4) return;
    const mm = Math.min(Number(d.long), Math.max(0, Number(d.at) + dx * Number(d.per)));
    s.mm = mm;
    s.a.classList.add("held");
    s.a.setAttribute("transform", `translate(${(mm - Number(d.at)) / Number(d.per)} 0)`);
    if (asking) return;
    asking++;
    try {
      const r = await (await fetch("/p/" + $("#page").dataset.plan + "/slide?" + new URLSearchParams({ device: d.slide, at: mm }))).json();
      if (slide === s && r.volts) $$("[data-volts]", s.svg).forEach((t) => { if (r.volts[t.dataset.volts]) t.textContent = r.volts[t.dataset.volts]; });
    } catch (_) { /* the drop will say it */ } finally { asking--; }
  });
  document.addEventListener("dragstart", (e) => { if (e.target.closest && e.target.closest("a[data-slide]")) e.preventDefault(); });
  document.addEventListener("pointerup", () => {
    const s = slide;
    slide = null;
    if (!s || s.mm === null) return;
    dropped = performance.now();
    slideTo(s.a, s.mm);
  });
  document.addEventListener("keydown", (e) => {
    const a = e.target.closest && e.target.closest("a[data-slide]");
    const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
    if (!a || !by || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    e.stopPropagation();
    slideTo(a, Number(a.dataset.at) + by * (e.shiftKey ? 304.8 : 25.4));
  }, true);

  // dimensions of the picked solid are dragged in the front view; the ticket's
  // own field takes the new size
  let pull = null;
  document.addEventListener("pointerdown", (e) => {
    const g = e.target.closest && e.target.closest("[data-size]");
    if (!g || e.button) return;
    e.preventDefault();
    pull = { g, svg: g.ownerSVGElement, from: userPoint(g.ownerSVGElement, e), home: g.transform.baseVal.consolidate().matrix };
  });
  document.addEventListener("pointermove", (e) => {
    if (!pull) return;
    const p = userPoint(pull.svg, e), d = pull.g.dataset, k = Number(d.scale);
    const dx = Number(d.dx) ? p.x - pull.from.x : 0, dy = Number(d.dy) ? p.y - pull.from.y : 0;
    const mm = Math.max(10, Number(d.now) + (dx * Number(d.dx) + dy * Number(d.dy)) / k);
    pull.text = d.metric === "true" ? Math.round(mm) + " mm" : inches(Math.round(mm / 25.4 * 4) / 4 * 25.4);
    pull.g.setAttribute("transform", `translate(${pull.home.e + dx} ${pull.home.f + dy})`);
    let t = $("text", pull.g);
    if (!t) { t = document.createElementNS("http://www.w3.org/2000/svg", "text"); t.setAttribute("class", "t lbl"); t.setAttribute("x", 12); t.setAttribute("y", -10); pull.g.append(t); }
    t.textContent = pull.text;
  });
  document.addEventListener("pointerup", () => {
    const p = pull;
    pull = null;
    if (!p || !p.text) return;
    const f = $(`.ticket [name="${p.g.dataset.size}"]`);
    if (f) { f.value = p.text; f.dispatchEvent(new Event("change", { bubbles: true })); }
  });

  // solids: one is dragged in the front view, and settles on what is near
  let lift = null;
  document.addEventListener("pointerdown", (e) => {
    const a = e.target.closest && e.target.closest("svg.front .body[data-solid]");
    if (!a || e.button || e.ctrlKey || e.metaKey || e.pointerType === "touch" || e.target.closest("[data-size]") || !$("#move")) return;
    const id = a.dataset.solid, svg = a.ownerSVGElement, k = $("[data-moves]", svg);
    if (!k) return;
    e.preventDefault();
    lift = { svg, id, k: Number(k.dataset.moves), from: userPoint(svg, e), x: e.clientX, y: e.clientY, on: false,
      all: $$(".body[data-solid]", svg).filter((b) => b.dataset.solid === id) };
  });
  document.addEventListener("pointermove", (e) => {
    if (!lift) return;
    if (!lift.on && Math.hypot(e.clientX - lift.x, e.clientY - lift.y) < 6) return;
    lift.on = true;
    const p = userPoint(lift.svg, e);
    lift.dx = p.x - lift.from.x;
    lift.dy = p.y - lift.from.y;
    lift.all.forEach((b) => b.setAttribute("transform", `translate(${lift.dx} ${lift.dy})`));
  });
  document.addEventListener("pointerup", () => {
    const l = lift;
    lift = null;
    if (!l) return;
    if (!l.on) { // a press picks it
      const u = new URL(location.href);
      u.searchParams.set("sel", "solid:" + l.id);
      go(u.pathname + u.search);
      return;
    }
    const f = $("#move");
    f.solid.value = l.id;
    f.dx.value = l.dx / l.k;
    f.dz.value = -l.dy / l.k;
    f.near.value = 9 / l.k;
    send(f);
  });

  // zoom
  let zoom = 1;
  function setZoom(z) {
    zoom = Math.min(4, Math.max(1, z));
    $$("[data-zoom]").forEach((d) => { d.classList.toggle("zoomed", zoom > 1); const s = $("svg", d); if (s) s.style.width = zoom > 1 ? zoom * 100 + "%" : ""; });
  }
  document.addEventListener("wheel", (e) => { if (e.ctrlKey && e.target.closest && e.target.closest("[data-zoom]")) { e.preventDefault(); setZoom(zoom * (e.deltaY < 0 ? 1.15 : 0.87)); } }, { passive: false });

  // keys
  document.addEventListener("keydown", (e) => {
    if ((e.ctrlKey || e.metaKey) && !e.altKey && (e.key === "z" || e.key === "y")) {
      if (typing(e.target) && e.target.value !== e.target.defaultValue) return;
      const b = $(e.key === "z" && !e.shiftKey ? "[data-undo]" : "[data-redo]");
      if (b && !b.disabled) { e.preventDefault(); b.click(); }
      return;
    }
    if (e.ctrlKey || e.metaKey || e.altKey || !shortcut(e)) return;
    const doors = $$("[data-door]");
    const picks = $$(".surface a.pick, .surface .item[href]");
    const at = picks.findIndex((p) => p.classList.contains("on"));
    switch (e.key) {
      case "/": e.preventDefault(); $("#line") && $("#line").focus(); break;
      case "?": $("#keys") && $("#keys").showModal(); break;
      case "[": if (picks.length) { const p = picks[(at <= 0 ? picks.length : at) - 1]; step(picks, at, -1, p); } break;
      case "]": if (picks.length) step(picks, at, 1, picks[(at + 1) % picks.length]); break;
      case "m": { const b = $(".gutter .btn.main, .walk .btn.main"); if (b) b.click(); break; }
      case "w": { const n = $(".ticket [data-working]"); if (n) n.click(); break; }
      case "+": case "=": setZoom(zoom * 1.25); break;
      case "-": setZoom(zoom * 0.8); break;
      case "0": setZoom(1); break;
      default: if (e.key >= "1" && e.key <= String(doors.length)) go(doors[e.key - 1].getAttribute("href"));
    }
  });
  // several links may lead to one thing (its copies): step past them
  function step(picks, at, dir, to) {
    const key = at >= 0 ? picks[at].dataset.key : "";
    for (let i = 0, n = at; i < picks.length; i++) {
      n = (n + dir + picks.length) % picks.length;
      if (picks[n].dataset.key !== key) { to = picks[n]; break; }
    }
    go(to.getAttribute("href"));
  }

  // the quick line's memory, this browser's own
  function memory() { try { return JSON.parse(localStorage.getItem("said") || "[]"); } catch (_) { return []; } }
  function remember(line) {
    if (!line.trim()) return;
    const said = [line].concat(memory().filter((l) => l !== line)).slice(0, 40);
    try { localStorage.setItem("said", JSON.stringify(said)); } catch (_) { /* private window */ }
  }

  document.addEventListener("alpine:init", () => {
    window.Alpine.data("quickline", () => ({
      at: -1,
      next: [],
      asked: "",
      async read() {
        const line = $("#line").value;
        const got = this.$refs.got;
        if (!line.trim()) { got.textContent = ""; got.classList.remove("bad"); this.offer([]); return; }
        const q = new URLSearchParams({ line: line, prop: $(".quick [name=prop]").value });
        try {
          const r = await (await fetch("/p/" + $("#page").dataset.plan + "/read?" + q)).json();
          if ($("#line").value !== line) return;
          this.asked = line;
          got.classList.toggle("bad", !r.text);
          got.textContent = r.text ? "reads as: " + r.text : r.error;
          this.offer(document.activeElement === $("#line") ? r.next || [] : []);
        } catch (_) { got.textContent = "The barn does not answer."; got.classList.add("bad"); }
      },
      // offer shows what may follow; a press or Tab takes it
      offer(words) {
        this.next = words;
        const ul = this.$refs.next;
        ul.replaceChildren(...words.map((w) => {
          const li = document.createElement("li"), b = document.createElement("button");
          b.type = "button";
          b.tabIndex = -1;
          b.textContent = w;
          b.addEventListener("mousedown", (e) => { e.preventDefault(); this.take(w); });
          li.append(b);
          return li;
        }));
      },
      async tab() { // an answer that is still under way is waited for
        if (this.asked !== $("#line").value) await this.read();
        if (this.next.length) this.take(this.next[0]);
      },
      take(word) {
        const line = $("#line"), words = line.value.split(" ");
        words[words.length - 1] = word;
        line.value = words.join(" ") + " ";
        this.read();
      },
      leave() { this.offer([]); },
      key(e) {
        const said = memory();
        if (e.key === "ArrowUp" || e.key === "ArrowDown") {
          const next = this.at + (e.key === "ArrowUp" ? 1 : -1);
          if (next >= -1 && next < said.length) { this.at = next; $("#line").value = next < 0 ? "" : said[next]; this.read(); }
          e.preventDefault();
        } else if (e.key === "Tab" && !e.shiftKey && $("#line").value.trim() && (this.next.length || this.asked !== $("#line").value)) {
          e.preventDefault();
          this.tab();
        } else if (e.key === "Escape") {
          this.offer([]);
        } else if (e.key === "Enter") {
          this.offer([]);
        }
      },
      // several lines at once are shown first, each with what it would do
      paste(e) {
        const text = (e.clipboardData || window.clipboardData).getData("text");
        if (!/\n./.test(text.trim())) return;
        e.preventDefault();
        several(text);
      },
    }));
    window.Alpine.data("search", () => ({
      source: null,
      look() {
        const q = new URLSearchParams({ stock: this.$root.dataset.stock, prop: $(".quick [name=prop]").value });
        this.stop();
        this.$refs.found.hidden = false;
        this.$refs.stop.hidden = false;
        this.$refs.keep.disabled = true;
        this.$refs.said.textContent = "laying out";
        this.source = new EventSource("/p/" + $("#page").dataset.plan + "/search?" + q);
        this.source.onmessage = (e) => {
          const m = JSON.parse(e.data);
          this.$refs.bar.value = m.share;
          this.$refs.said.textContent = `${m.sheets} sheets, ${m.used} used` + (m.left ? `, largest piece left ${m.left}` : "") + (m.done ? ". Done." : "");
          if (m.draw) this.$refs.draw.innerHTML = m.draw;
          if (m.layout) { this.$refs.layout.value = JSON.stringify(m.layout); this.$refs.keep.disabled = false; }
          if (m.done) this.stop();
        };
        this.source.onerror = () => { this.$refs.said.textContent = "The barn does not answer; what was found so far can still be kept."; this.stop(); };
      },
      stop() { if (this.source) this.source.close(); this.source = null; this.$refs.stop.hidden = true; },
      drop() { this.stop(); this.$refs.found.hidden = true; this.$refs.draw.innerHTML = ""; },
      destroy() { this.stop(); },
    }));
    window.Alpine.data("player", () => ({
      timer: 0, now: 0, last: 0, data: null,
      init() { this.data = JSON.parse(this.$root.dataset.frames); this.now = Number(this.$root.dataset.at); },
      destroy() { cancelAnimationFrame(this.timer); },
      toggle() {
        if (this.timer) { this.stop(); return; }
        if (this.now >= this.data.until) this.now = 0;
        this.$refs.play.textContent = "❚❚ pause";
        this.last = performance.now();
        const tick = (t) => {
          this.now = Math.min(this.data.until, this.now + (t - this.last));
          this.last = t;
          this.show();
          if (this.now >= this.data.until) { this.stop(); return; }
          this.timer = requestAnimationFrame(tick);
        };
        this.timer = requestAnimationFrame(tick);
      },
      stop() {
        cancelAnimationFrame(this.timer);
        this.timer = 0;
        this.$refs.play.textContent = "▶ play";
        const u = new URL(location.href);
        u.searchParams.set("t", Math.round(this.now));
        go(u.pathname + u.search, false).then(() => history.replaceState({}, "", u));
      },
      show() {
        const c = $("[data-cursor]", this.$root);
        const x0 = Number(c.dataset.x0), x1 = Number(c.dataset.x1);
        c.setAttribute("transform", `translate(${x0 + (this.now / this.data.until) * (x1 - x0)} 0)`);
        this.$refs.clock.textContent = (this.now / 1000).toFixed(2) + " s";
        let f = this.data.frames[0];
        for (const g of this.data.frames) if (g.at <= this.now) f = g;
        if (f === this.shown) return;
        this.shown = f;
        $$("[data-lamp]", this.$root).forEach((l) => l.setAttribute("class", "stageglow lv" + f.lamps[l.dataset.lamp]));
        $$("[data-amps]", this.$root).forEach((l) => { l.textContent = f.amps[l.dataset.amps]; });
      },
    }));
  });
})();

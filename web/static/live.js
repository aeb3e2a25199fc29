// What makes the page live: forms and links answer in place. Requests go out
// one after another; an answer is morphed into the page, so that a field that
// is being typed in, or was changed since the request left, is never touched.
(function () {
  "use strict";
  const $ = (s, r) => (r || document).querySelector(s);
  const $$ = (s, r) => Array.from((r || document).querySelectorAll(s));

  // what a person types in
  function typing(el) {
    return !!el && el.matches && el.matches("input:not([type=checkbox]):not([type=radio]):not([type=range]):not([type=hidden]):not([type=file]), textarea");
  }
  const field = (el) => el.matches && el.matches("input:not([type=hidden]):not([type=file]), select, textarea");

  let clock = 0; // counts inputs and requests, to tell which came first
  const touched = new WeakMap(); // field: when it was last changed by hand
  const loose = new WeakSet(); // fields with text that was not entered yet
  const unsent = new WeakSet(); // fields that were entered, and whose request has not left
  let lastTyped = -1e9;
  document.addEventListener("input", (e) => {
    touched.set(e.target, ++clock);
    if (typing(e.target)) loose.add(e.target);
  }, true);
  document.addEventListener("change", (e) => enter(e.target), true);
  // enter takes a field's text as entered now: a request that left before knows
  // nothing of it, whenever it was typed
  function enter(el) {
    loose.delete(el);
    unsent.add(el);
    touched.set(el, ++clock);
  }
  document.addEventListener("keydown", (e) => { if (typing(e.target)) lastTyped = performance.now(); }, true);

  // the requests: one under way, the rest in order
  const line = [];
  let under = false, current = null;

  function add(job) {
    document.dispatchEvent(new CustomEvent("asking"));
    if (job.navigates) { // only the last of several places asked for is gone to
      for (let i = line.length - 1; i >= 0; i--) if (line[i].navigates) { line[i].done(); line.splice(i, 1); }
    }
    if (job.form) for (const j of line) if (j.form !== job.form) close(j);
    const again = job.auto && line.findIndex((j) => j.auto && j.form === job.form);
    const promise = new Promise((ok) => { job.done = ok; });
    if (job.auto && again >= 0) line.splice(again, 1)[0].done();
    line.push(job);
    document.body.classList.add("busy");
    if (!under) setTimeout(run, 0); // change and submit of one Enter are one request
    return promise;
  }

  // mayLeave asks before what was entered and could not be stored is left behind
  function mayLeave() {
    const bad = notStored();
    if (!bad.length) return true;
    const name = (el) => ($("span", el.closest(".fl")) || {}).textContent || el.name;
    return confirm("Not stored: " + bad.map((el) => `${name(el)} “${el.value}”`).join(", ") + ". Leave it?");
  }
  function notStored() { return $$(".fl.bad input[data-stored]").filter((el) => el.value !== el.dataset.stored); }
  window.addEventListener("beforeunload", (e) => { if (notStored().length && !leaving) e.preventDefault(); });
  let leaving = false; // it was asked for, and answered

  // close says now what a ticket says that waits in the line: what is entered after
  // something else was asked for, an undo, goes after it
  function close(job) {
    if (!job.auto) return;
    job.data = dataOf(job);
    job.auto = false;
    job.closed = clock;
  }

  async function run() {
    if (under) return;
    under = true;
    while (line.length) {
      const job = current = line.shift();
      if ((job.navigates || job.leaves) && !mayLeave()) { job.done(); continue; }
      try { await one(job); } catch (e) {
        trouble("The barn does not answer. What you entered is still here; start it again and press Enter.");
        if (job.said) answered(job, "The barn does not answer.");
      }
      current = null;
      job.done();
      document.body.dataset.settled = String(Number(document.body.dataset.settled || 0) + 1);
    }
    document.body.classList.remove("busy");
    under = false;
  }

  async function one(job) {
    const at = ++clock;
    if (job.leaves) { leaving = true; location.href = job.leaves; return; }
    const opts = asked(job);
    const r = await fetch(job.url, opts);
    const html = await r.text();
    swap(html, r.redirected || !opts ? r.url : null, job, at);
  }

  // asked is how a job is put; what was sent arrives, should the page be left meanwhile
  function asked(job) {
    if (!job.form) return undefined;
    const body = dataOf(job);
    for (const el of job.form.elements) {
      if (job.closed === undefined || (touched.get(el) || 0) <= job.closed) unsent.delete(el);
    }
    const small = body instanceof URLSearchParams && String(body).length < 20000; // browsers keep no more than 64 KiB alive
    return { method: "POST", body: body, keepalive: small };
  }

  // leaving the page: what has not left yet leaves now, lines in their order as one
  window.addEventListener("pagehide", () => {
    const rest = line.splice(0), said = rest.filter((j) => j.said);
    for (const job of rest) if (job.form && !job.said) fetch(job.url, asked(job));
    if (!said.length) return;
    const body = new URLSearchParams(said[0].data);
    body.delete("line");
    body.set("lines", said.map((j) => j.said.text).join("\n"));
    body.set("each", "1");
    fetch(said[0].url.replace(/quick$/, "lines"), { method: "POST", body: body, keepalive: true });
  });

  // dataOf is what a form says when its turn comes: a ticket that is still on
  // the page as it stands then, without what is still being typed in it.
  function dataOf(job) {
    if (!job.auto || !document.contains(job.form)) return job.data;
    const data = new URLSearchParams();
    for (const el of job.form.elements) {
      if (!el.name || el.type === "submit" || el.type === "button" || el.disabled) continue;
      if ((el.type === "checkbox" || el.type === "radio") && !el.checked) continue;
      if (loose.has(el) && !job.entered) continue;
      data.append(el.name, el.value);
    }
    return data;
  }

  function send(form, button, auto) {
    const sent = new FormData(form);
    const data = form.enctype === "multipart/form-data" ? sent : new URLSearchParams(sent);
    if (button && button.name) data.append(button.name, button.value);
    const entered = !auto;
    if (entered) for (const el of form.elements) if (loose.has(el)) enter(el);
    return add({ url: form.action, form: form, data: data, auto: form.matches("[data-auto]"), entered: entered, pressed: button && button.value });
  }

  // sendLine takes the line as entered: what is typed from here on is another, and a second
  // Enter finds it empty. Its answer is told with it.
  function sendLine(form) {
    const at = $("#line"), text = at.value.trim();
    if (!text) return;
    const data = new URLSearchParams(new FormData(form));
    at.value = "";
    loose.delete(at);
    const said = { text: text, at: ++clock };
    document.dispatchEvent(new CustomEvent("said", { detail: said }));
    add({ url: form.action, form: form, data: data, entered: true, said: said });
  }

  // answered tells how a line came out. A refused one goes back to the line, unless something
  // else is typed there by now.
  function answered(job, refusal) {
    const at = $("#line");
    const free = !at.value && (touched.get(at) || 0) <= job.said.at;
    if (refusal && free) at.value = job.said.text;
    document.dispatchEvent(new CustomEvent("answered", { detail: { said: job.said, refusal: refusal, back: free, did: flash() } }));
    return free;
  }

  // flash is what the server says of the edit it just made, told once
  function flash() {
    const m = document.cookie.match(/(?:^|; )did=([^;]*)/);
    if (!m) return "";
    document.cookie = "did=;path=/p/" + $("#page").dataset.plan + ";max-age=0";
    try { return decodeURIComponent(m[1].replace(/\+/g, "%20")); } catch (_) { return ""; }
  }

  // twice reports a press of a palette that is under way already
  function twice(form, button) {
    if (!form.matches(".palette")) return false;
    return [current].concat(line).some((j) => j && j.form === form && j.pressed === button.value);
  }

  function go(url, push) { return add({ url: url, navigates: true, push: push !== false }); }

  function trouble(text) {
    let p = $(".offline");
    if (!p) {
      p = document.createElement("p");
      p.className = "error offline";
      p.setAttribute("role", "alert");
      $(".surface").prepend(p);
    }
    p.textContent = text;
  }

  // keeps reports a field that an answer must not touch
  function keeps(el, job, at) {
    if (!field(el) || !el.isConnected) return false;
    if (el.id === "line") return true; // what stands on the line is the typist's
    if ((touched.get(el) || 0) > at) return true;
    if (loose.has(el)) return true;
    if (unsent.has(el) && line.some((j) => j.form && j.form === el.form)) return true; // entered, and still to be sent
    return el === document.activeElement && typing(el);
  }

  function settle(el, to) { // a field's own state follows its attributes
    if (el.type === "checkbox" || el.type === "radio") { el.checked = to.hasAttribute("checked"); return; }
    if (el.tagName === "SELECT") {
      const on = $("option[selected]", to) || $("option", to);
      if (on) el.value = on.getAttribute("value") === null ? on.textContent : on.getAttribute("value");
      return;
    }
    const v = el.tagName === "TEXTAREA" ? to.textContent : to.getAttribute("value") || "";
    if (el.value !== v) el.value = v;
  }

  // whole are parts that are put in anew when they differ: drawings, and what
  // has a state of its own that belongs to what is shown
  const whole = ".draw, .player, .stocks, .leader";

  function morph(page, job, at) {
    const old = $("#page");
    const later = [];
    window.Alpine.morph(old, page, {
      key: (el) => (el.getAttribute ? el.getAttribute("data-k") || el.id || undefined : undefined),
      updating(el, to, childrenOnly, skip) {
        if (el.nodeType !== 1) return;
        if (el.id === "answers") { skip(); return; }
        if (el.matches(whole)) {
          if (el.outerHTML !== to.outerHTML) el.replaceWith(document.importNode(to, true));
          skip();
          return;
        }
        if (el.tagName === "DETAILS" && el.open) to.setAttribute("open", "");
        if (!field(el)) return;
        if (keeps(el, job, at)) {
          for (const name of ["class", "aria-invalid", "data-stored", "maxlength"]) {
            if (to.hasAttribute(name)) el.setAttribute(name, to.getAttribute(name)); else el.removeAttribute(name);
          }
          if (el.tagName !== "SELECT") skip();
          else later.push([el, el.value]);
        } else if (el.tagName === "SELECT") {
          later.push([el, null, to]);
        } else {
          settle(el, to);
        }
      },
    });
    for (const [el, value, to] of later) { if (to) settle(el, to); else el.value = value; }
  }

  // tell says what an edit did: snags gone, snags new, what it costs
  function tell(before, after, done) {
    const to = $("[data-told]");
    if (!to || !before || !after) return;
    if (before === after) { // what was said before is of another edit
      to.textContent = done ? "Done; nothing else changes." : "";
      return;
    }
    const a = JSON.parse(before), b = JSON.parse(after);
    const gone = a.s.filter((s) => !b.s.includes(s)).length, fresh = b.s.filter((s) => !a.s.includes(s)).length;
    const said = [];
    if (gone) said.push(gone + (gone === 1 ? " snag gone" : " snags gone"));
    if (fresh) said.push(fresh + " new");
    const more = Math.round((b.c - a.c) * 100) / 100;
    if (more) said.push((more > 0 ? "+$" : "−$") + Math.abs(more).toFixed(2));
    to.textContent = said.join(", ");
  }

  // settleLine tells a line's answer by the page that came for it
  function settleLine(job, next) {
    const why = [$(".got.bad", next), $("main .error", next)].map((e) => e && e.textContent.trim()).find((t) => t);
    const refused = $("#line", next) && $("#line", next).getAttribute("value");
    if (answered(job, refused ? why || "It was not understood." : "") && refused) {
      $(".tries").dataset.of = job.said.text;
      return;
    }
    const got = $(".got"); // what the page says there is of the line that was sent, not of what is typed now
    got.textContent = "";
    got.classList.remove("bad");
    $(".tries").replaceChildren();
  }

  // tabFromTheTop lets the next Tab begin at the page's first link, as after a load: the
  // browser goes on from where the focus last was, though that place is gone.
  function tabFromTheTop() {
    document.body.tabIndex = -1;
    document.body.focus({ preventScroll: true });
    document.body.removeAttribute("tabindex");
  }

  // swap puts a fresh page in place of the old and keeps where the user was.
  function swap(html, url, job, at) {
    const next = new DOMParser().parseFromString(html, "text/html");
    const page = $("#page", next);
    if (!page) { // a plain page of trouble: say it here, and keep what was entered
      const h = $("h1", next), p = $("main p", next);
      trouble((h ? h.textContent + ". " : "") + (p ? p.textContent : "The barn answered something unexpected."));
      return;
    }
    const a = document.activeElement;
    const name = (el, attr) => (el.getAttribute && el.getAttribute(attr) ? `[${attr}="${CSS.escape(el.getAttribute(attr))}"]` : "");
    const keep = a && a !== document.body ? ["data-slide", "data-handle", "data-piece", "name", "id", "data-key"].map((n) => name(a, n)).find((s) => s) : "";
    const action = a && a.form && a.form.getAttribute("action");
    const same = url && new URL(url, location.href).pathname === location.pathname;
    const here = location.pathname;
    const off = $(".offline");
    if (off) off.remove();
    const before = $("#page").dataset.tally, plan = $("#page").dataset.plan;
    const step = () => ($("[data-undo]") || {}).title;
    const was = step();
    const group = a && a.closest ? [".ways", ".props", ".beam", ".gutter", ".ticket"].find((g) => a.closest(g)) : "";
    morph(page, job, at);
    for (const m of $$("[data-behind]")) m.remove();
    const behind = $("[data-behind]", next);
    if (behind) $("#page").before(document.importNode(behind, true));
    document.title = next.title;
    document.documentElement.className = next.documentElement.className + " js";
    if (job.form && $("#page").dataset.plan === plan) tell(before, $("#page").dataset.tally, step() !== was);
    if (job.said) settleLine(job, next);
    if (url && job.push !== false) {
      if (new URL(url, location.href).href === location.href) history.replaceState({}, "", url);
      else history.pushState({}, "", url);
    }
    if (url && !same && here !== location.pathname) { $(".surface").scrollTop = 0; $(".surface").scrollLeft = 0; }
    if (keep && document.activeElement === document.body) {
      const to = $$(keep).find((e) => !action || !e.form || e.form.getAttribute("action") === action);
      if (to && to.type !== "hidden") to.focus({ preventScroll: true });
    }
    if (group && document.activeElement === document.body) { // what was pressed is gone: stay where it was
      const to = $(group + " [aria-current]") || $(group + "[tabindex]") || $(group + " a, " + group + " button");
      if (to) to.focus({ preventScroll: true });
    }
    if (job.form && job.form.matches(".palette")) { // what was added is there to be measured: its first size is ready
      const first = $('.ticket .fl input[name^="f."]:not([name="f.name"]):not([type=checkbox])');
      if (first) { first.focus({ preventScroll: true }); first.select(); }
    }
    const bad = $(".fl.bad input, .fl.bad select");
    if (bad && !typing(document.activeElement)) bad.focus();
    if (url && here !== location.pathname && document.activeElement === document.body) tabFromTheTop();
    document.dispatchEvent(new CustomEvent("swapped"));
  }

  document.addEventListener("submit", (e) => {
    const f = e.target;
    const ask = e.submitter && e.submitter.dataset.confirm;
    if (ask && !confirm(ask)) { e.preventDefault(); return; }
    if (!f.matches("[data-live]")) return;
    e.preventDefault();
    if (e.submitter && twice(f, e.submitter)) return;
    document.dispatchEvent(new CustomEvent("sending", { detail: f }));
    if (f.matches(".quick")) sendLine(f); else send(f, e.submitter);
  });
  // the second click of a double click adds nothing more
  document.addEventListener("click", (e) => {
    if (e.detail > 1 && e.target.closest && e.target.closest(".palette button, .starter button, .quick .do")) {
      e.preventDefault();
      e.stopPropagation();
    }
  }, true);
  document.addEventListener("change", (e) => {
    const f = e.target.form;
    if (e.target.id === "line") return;
    if (f && f.matches("[data-get]")) { go(f.getAttribute("action") + "?" + new URLSearchParams(new FormData(f))); return; }
    if (f && f.matches("[data-auto]")) send(f, null, true);
  });
  document.addEventListener("click", (e) => {
    const a = e.target.closest("a.pick, .touches a, a.item, .ways a, .props a, .door, .snag a, .inputs a, .hand .runs a, .depths a, .kept a, .step a, .rules a, .link[href], .picbar a, .take a");
    if (!a || a.matches("[data-working]") || a.getAttribute("target") || a.hasAttribute("download") || e.defaultPrevented || e.ctrlKey || e.metaKey || e.button || !$("#page")) return;
    e.preventDefault();
    go(a.getAttribute("href"));
  });
  // a link that leads off the page goes when all that was entered is sent
  document.addEventListener("click", (e) => {
    const a = e.target.closest("a[href]");
    if (!a || e.defaultPrevented || a.target || a.hasAttribute("download") || e.ctrlKey || e.metaKey || e.shiftKey || e.button) return;
    if (!under && !line.length && !notStored().length || a.getAttribute("href").startsWith("#")) return;
    e.preventDefault();
    add({ leaves: a.href });
  });
  window.addEventListener("popstate", () => { if ($("#page")) go(location.href, false); });

  // A key is a shortcut only where nothing is typed, and not while someone has
  // just left one field for the next: what they type on was meant for that.
  // The two that only lead to help and to the quick line always work.
  function shortcut(e) {
    if (typing(e.target) || e.target.matches("select")) return false;
    return e.key === "/" || e.key === "?" || performance.now() - lastTyped > 1000;
  }

  // forget has a field hold what is stored: nothing of it is still to be entered
  function forget(el) { loose.delete(el); unsent.delete(el); }

  window.live = { go, send, trouble, typing, shortcut, forget };
})();

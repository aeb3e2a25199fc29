// The queue of edits: requests go out one after another, what was entered is never lost, and
// nothing is sent that is still being typed.
(function () {
  "use strict";
  const $ = (s, r) => (r || document).querySelector(s);
  const $$ = (s, r) => Array.from((r || document).querySelectorAll(s));

  const live = (window.live = {});

  // what a person types in
  function typing(el) {
    return (
      !!el &&
      el.matches &&
      el.matches(
        "input:not([type=checkbox]):not([type=radio]):not([type=range]):not([type=hidden]):not([type=file]), textarea",
      )
    );
  }
  const field = (el) =>
    el.matches && el.matches("input:not([type=hidden]):not([type=file]), select, textarea");

  let clock = 0; // counts inputs and requests, to tell which came first
  const touched = new WeakMap(); // field: when it was last changed by hand
  const loose = new WeakSet(); // fields with text that was not entered yet
  const unsent = new WeakSet(); // fields that were entered, and whose request has not left
  let lastTyped = -1e9;
  document.addEventListener(
    "input",
    (e) => {
      touched.set(e.target, ++clock);
      if (typing(e.target)) loose.add(e.target);
    },
    true,
  );
  document.addEventListener("change", (e) => enter(e.target), true);
  // enter takes a field's text as entered now: a request that left before knows
  // nothing of it, whenever it was typed
  function enter(el) {
    loose.delete(el);
    unsent.add(el);
    touched.set(el, ++clock);
  }
  document.addEventListener(
    "keydown",
    (e) => {
      if (typing(e.target)) lastTyped = performance.now();
    },
    true,
  );

  // the requests: one under way, the rest in order
  const line = [];
  let under = false,
    current = null;

  function add(job) {
    document.dispatchEvent(new CustomEvent("asking"));
    if (job.navigates) {
      // only the last of several places asked for is gone to
      for (let i = line.length - 1; i >= 0; i--)
        if (line[i].navigates) {
          line[i].done();
          line.splice(i, 1);
        }
    }
    if (job.form) for (const j of line) if (j.form !== job.form) close(j);
    const again = job.auto && line.findIndex((j) => j.auto && j.form === job.form);
    const promise = new Promise((ok) => {
      job.done = ok;
    });
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
  function notStored() {
    return $$(".fl.bad input[data-stored]").filter((el) => el.value !== el.dataset.stored);
  }
  window.addEventListener("beforeunload", (e) => {
    if (notStored().length && !leaving) e.preventDefault();
  });
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
      const job = (current = line.shift());
      if ((job.navigates || job.leaves) && !mayLeave()) {
        job.done();
        continue;
      }
      try {
        await one(job);
      } catch {
        live.trouble(
          "The barn does not answer. What you entered is still here; start it again and press Enter.",
        );
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
    if (job.leaves) {
      leaving = true;
      location.href = job.leaves;
      return;
    }
    const opts = asked(job);
    const r = await fetch(job.url, opts);
    const html = await r.text();
    live.swap(html, r.redirected || !opts ? r.url : null, job, at);
  }

  // asked is how a job is put; what was sent arrives, should the page be left meanwhile
  function asked(job) {
    if (!job.form) return undefined;
    const body = dataOf(job);
    for (const el of job.form.elements) {
      if (job.closed === undefined || (touched.get(el) || 0) <= job.closed) unsent.delete(el);
    }
    // browsers keep no more than 64 KiB alive
    const small = body instanceof URLSearchParams && String(body).length < 20000;
    return { method: "POST", body: body, keepalive: small };
  }

  // leaving the page: what has not left yet leaves now, lines in their order as one
  window.addEventListener("pagehide", () => {
    const rest = line.splice(0),
      said = rest.filter((j) => j.said);
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
    return add({
      url: form.action,
      form: form,
      data: data,
      auto: form.matches("[data-auto]"),
      entered: entered,
      pressed: button && button.value,
    });
  }

  // sendLine takes the line as entered: what is typed from here on is another, and a second
  // Enter finds it empty. Its answer is told with it.
  function sendLine(form) {
    const at = $("#line"),
      text = at.value.trim();
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
    document.dispatchEvent(
      new CustomEvent("answered", { detail: { said: job.said, refusal: refusal, back: free, did: flash() } }),
    );
    return free;
  }

  // flash is what the server says of the edit it just made, told once
  function flash() {
    const m = document.cookie.match(/(?:^|; )did=([^;]*)/);
    if (!m) return "";
    document.cookie = "did=;path=/p/" + $("#page").dataset.plan + ";max-age=0";
    try {
      return decodeURIComponent(m[1].replace(/\+/g, "%20"));
    } catch {
      return "";
    }
  }

  // twice reports a press of a palette that is under way already
  function twice(form, button) {
    if (!form.matches(".palette")) return false;
    return [current].concat(line).some((j) => j && j.form === form && j.pressed === button.value);
  }

  function go(url, push) {
    return add({ url: url, navigates: true, push: push !== false });
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

  // A key is a shortcut only where nothing is typed, and not while someone has
  // just left one field for the next: what they type on was meant for that.
  // The two that only lead to help and to the quick line always work.
  function shortcut(e) {
    if (typing(e.target) || e.target.matches("select")) return false;
    return e.key === "/" || e.key === "?" || performance.now() - lastTyped > 1000;
  }

  // forget has a field hold what is stored: nothing of it is still to be entered
  function forget(el) {
    loose.delete(el);
    unsent.delete(el);
  }

  // busy reports a request under way, or one that waits
  const busy = () => under || line.length > 0;

  Object.assign(live, {
    add,
    go,
    send,
    sendLine,
    answered,
    keeps,
    twice,
    busy,
    notStored,
    typing,
    field,
    shortcut,
    forget,
  });
})();

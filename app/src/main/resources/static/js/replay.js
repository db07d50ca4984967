// Plays a flight: the cursor of the strips and the map moves by the clock, from event to event, closer and further.
(function () {
  "use strict";
  var bar = document.getElementById("replay");
  if (!bar) {
    return;
  }
  function part(name) {
    return bar.querySelector('[data-replay="' + name + '"]');
  }
  document.addEventListener(
    "yarrek:flight",
    function (e) {
      var flight = e.detail,
        whole = flight.whole,
        first = whole.takeoffS,
        last = whole.landingS,
        moments = [first, last];
      whole.bands.forEach(function (b) {
        moments.push(b.fromS, b.toS);
      });
      whole.marks.forEach(function (m) {
        moments.push(m.atS);
      });
      moments = moments
        .filter(function (t) {
          return t >= first && t <= last;
        })
        .sort(function (a, b) {
          return a - b;
        });
      bar.hidden = false;
      var playing = null,
        frames = 0;
      function now() {
        var t = flight.at();
        return t === null ? first : t;
      }
      function stop() {
        playing = null;
        part("play").textContent = "Play";
        part("play").setAttribute("aria-pressed", "false");
      }
      function tick(clock) {
        if (!playing) {
          return;
        }
        playing.t += ((clock - playing.clock) / 1000) * Number(part("pace").value);
        playing.clock = clock;
        bar.dataset.frames = ++frames;
        flight.moveTo(Math.min(playing.t, last));
        if (playing.t >= last) {
          stop();
        } else {
          requestAnimationFrame(tick);
        }
      }
      function play() {
        if (playing) {
          stop();
          return;
        }
        var t = now();
        playing = { t: t >= last || t < first ? first : t, clock: performance.now() };
        part("play").textContent = "Pause";
        part("play").setAttribute("aria-pressed", "true");
        requestAnimationFrame(tick);
      }
      function step(forth) {
        stop();
        var t = now();
        // a moment that the drawing left out stands at its nearest point after it
        var to = forth
          ? moments.find(function (m) {
              return m > t + 0.05;
            })
          : moments
              .slice()
              .reverse()
              .find(function (m) {
                return m < t - 0.05;
              });
        if (to !== undefined) {
          flight.moveTo(to);
        }
      }
      function near() {
        var t = now(),
          half = Math.max(10, (last - first) / 12);
        flight.zoom(Math.max(whole.seconds[0], t - half), Math.min(whole.seconds[whole.seconds.length - 1], t + half));
      }
      part("play").addEventListener("click", play);
      part("next").addEventListener("click", function () {
        step(true);
      });
      part("back").addEventListener("click", function () {
        step(false);
      });
      part("near").addEventListener("click", near);
      part("whole").addEventListener("click", function () {
        flight.zoom(whole.seconds[0], whole.seconds[whole.seconds.length - 1]);
      });
      part("at").addEventListener("input", function () {
        stop();
        flight.moveTo(first + ((last - first) * Number(part("at").value)) / 1000);
      });
      if (part("with")) {
        part("with").addEventListener("change", function () {
          flight.beside(part("with").value);
        });
      }
      document.addEventListener("yarrek:moment", function (m) {
        part("at").value = Math.round(((m.detail - first) / (last - first || 1)) * 1000);
        var breaches = whole.bands
          .filter(function (b) {
            return m.detail >= b.fromS - 0.05 && m.detail <= b.toS + 0.05;
          })
          .map(function (b) {
            return b.title;
          })
          .join("; ");
        if (part("now").textContent !== breaches) {
          part("now").textContent = breaches; // heard when it changes, not at each frame
        }
      });
      document.addEventListener("keydown", function (k) {
        if (k.ctrlKey || k.metaKey || k.altKey || /^(INPUT|SELECT|TEXTAREA)$/.test(k.target.tagName)) {
          return;
        }
        if (k.key === "p") {
          play();
        } else if (k.key === "." || k.key === ",") {
          step(k.key === ".");
        }
      });
    },
    { once: true },
  );
})();

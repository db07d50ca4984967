/* The board by keys: from stitch to stitch, along a strand or to the next one; s takes the job under the cursor to the form. */
(function () {
  "use strict";
  var frame = document.querySelector("[data-board]");
  if (!frame) {
    return;
  }
  var stitches = Array.prototype.slice.call(frame.querySelectorAll("a.stitch"));
  var strands = [];
  stitches.forEach(function (a, i) {
    a.setAttribute("tabindex", i === 0 ? "0" : "-1");
    var s = a.getAttribute("data-strand");
    if (strands.indexOf(s) < 0) {
      strands.push(s);
    }
  });

  function of(strand) {
    return stitches.filter(function (a) {
      return a.getAttribute("data-strand") === strand;
    });
  }

  function go(a) {
    if (a) {
      stitches.forEach(function (x) {
        x.setAttribute("tabindex", x === a ? "0" : "-1");
      });
      a.focus();
    }
  }

  /* on another strand: the stitch whose day is nearest */
  function nearest(strand, day) {
    var at = new Date(day).getTime();
    return of(strand).sort(function (a, b) {
      return (
        Math.abs(new Date(a.getAttribute("data-day")).getTime() - at) -
        Math.abs(new Date(b.getAttribute("data-day")).getTime() - at)
      );
    })[0];
  }

  function take(a) {
    var form = document.getElementById("move-form");
    if (!form) {
      return;
    }
    var job = form.querySelector("[name=job]");
    job.value = a.getAttribute("data-job");
    job.dispatchEvent(new Event("change", { bubbles: true }));
    form.querySelector("[name=days]").focus();
    form.querySelector("[name=days]").select();
  }

  /* in the field of days the arrows shift the job, and what that changes is shown */
  document.addEventListener("keydown", function (e) {
    var field = e.target;
    var by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
    if (by && field.matches && field.matches("#move-form [name=days]")) {
      e.preventDefault();
      field.value = String((parseInt(field.value, 10) || 0) + by);
      field.select();
      field.dispatchEvent(new Event("change", { bubbles: true }));
    }
  });

  frame.addEventListener("keydown", function (e) {
    var a = document.activeElement;
    var here = stitches.indexOf(a);
    if (e.ctrlKey || e.metaKey || e.altKey) {
      return;
    }
    if (here < 0) {
      if (e.key === "ArrowDown" || e.key === "ArrowRight") {
        e.preventDefault();
        go(stitches[0]);
      }
      return;
    }
    var own = of(a.getAttribute("data-strand"));
    var strand = strands.indexOf(a.getAttribute("data-strand"));
    var to = null;
    if (e.key === "ArrowRight" || e.key === "l") {
      to = own[own.indexOf(a) + 1];
    } else if (e.key === "ArrowLeft" || e.key === "h") {
      to = own[own.indexOf(a) - 1];
    } else if (e.key === "ArrowDown" || e.key === "j") {
      to = strands[strand + 1] && nearest(strands[strand + 1], a.getAttribute("data-day"));
    } else if (e.key === "ArrowUp" || e.key === "k") {
      to = strands[strand - 1] && nearest(strands[strand - 1], a.getAttribute("data-day"));
    } else if (e.key === "s") {
      take(a);
    } else {
      return;
    }
    e.preventDefault();
    e.stopPropagation();
    go(to);
  });
})();

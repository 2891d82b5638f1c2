"use strict";
(function () {
  var FEW = 8;

  function key(row, column) {
    var cell = row.cells[column];
    var input = cell.querySelector("input");
    if (input) {
      return input.type === "checkbox" ? (input.checked ? "yes" : "") : input.value;
    }
    return cell.dataset.sort || cell.textContent;
  }

  function compare(one, other) {
    var a = Number(one), b = Number(other);
    if (one !== "" && other !== "" && !isNaN(a) && !isNaN(b)) {
      return a - b;
    }
    return one.localeCompare(other);
  }

  function sort(table, heading, column) {
    var up = heading.getAttribute("aria-sort") !== "ascending";
    Array.prototype.forEach.call(table.tHead.rows[0].cells, function (other) {
      other.removeAttribute("aria-sort");
    });
    heading.setAttribute("aria-sort", up ? "ascending" : "descending");
    var body = table.tBodies[0];
    Array.prototype.map.call(body.rows, function (row, at) {
      return { row: row, key: key(row, column), at: at };
    }).sort(function (one, other) {
      var order = compare(one.key, other.key);
      return (up ? order : -order) || one.at - other.at;
    }).forEach(function (entry) {
      body.appendChild(entry.row);
    });
  }

  function text(row) {
    return Array.prototype.map.call(row.cells, function (cell, column) {
      return cell.textContent + " " + (cell.querySelector("input") ? key(row, column) : "");
    }).join(" ").toLowerCase();
  }

  function make(name, attributes, content) {
    var element = document.createElement(name);
    Object.keys(attributes).forEach(function (one) {
      element.setAttribute(one, attributes[one]);
    });
    if (content) {
      element.textContent = content;
    }
    return element;
  }

  function tools(table) {
    var before = table.parentElement;
    var box = before.previousElementSibling;
    if (!box || !box.classList.contains("tools")) {
      box = make("div", { "class": "tools" });
      before.parentElement.insertBefore(box, before);
    }
    return box;
  }

  function filters(table) {
    var label = make("label", {}, "Only rows with ");
    var input = make("input", { type: "search", id: table.id + "-only" });
    var count = make("span", { role: "status" });
    label.appendChild(input);
    input.addEventListener("input", function () {
      var wanted = input.value.toLowerCase(), shown = 0, rows = table.tBodies[0].rows;
      Array.prototype.forEach.call(rows, function (row) {
        row.hidden = text(row).indexOf(wanted) < 0;
        shown += row.hidden ? 0 : 1;
      });
      count.textContent = wanted === "" ? "" : shown + " of " + rows.length + " rows";
    });
    tools(table).append(label, count);
  }

  function sorts(table) {
    Array.prototype.forEach.call(table.tHead.rows[0].cells, function (heading, column) {
      if (heading.tagName !== "TH") {
        return;
      }
      var button = make("button", { type: "button" }, heading.textContent);
      heading.textContent = "";
      heading.appendChild(button);
      button.addEventListener("click", function () {
        sort(table, heading, column);
      });
    });
  }

  function cell(value) {
    return /[",\r\n]/.test(value) || value !== value.trim() ? '"' + value.replace(/"/g, '""') + '"' : value;
  }

  function proposals(table) {
    var names = Array.prototype.map.call(table.tHead.rows[0].cells, function (heading) {
      return heading.textContent;
    });
    var accept = names.indexOf("accept"), meant = names.indexOf("meant"), written = names.indexOf("written");
    var rows = Array.prototype.slice.call(table.tBodies[0].rows);
    rows.forEach(function (row) {
      var line = JSON.parse(row.dataset.line);
      var box = make("input", { type: "checkbox", "aria-label": "accept " + row.cells[written].textContent });
      var field = make("input", { type: "text", "aria-label": "meant by " + row.cells[written].textContent });
      box.checked = /^\s*(yes|y|true|1|x)\s*$/i.test(line[accept]);
      field.value = line[meant];
      row.cells[accept].textContent = "";
      row.cells[accept].appendChild(box);
      row.cells[meant].textContent = "";
      row.cells[meant].appendChild(field);
      field.addEventListener("input", function () {
        box.checked = field.value !== "";
      });
    });
    var button = make("button", { type: "button", id: "save-corrections" }, "Save as " + table.dataset.file);
    var said = make("span", { role: "status" });
    button.addEventListener("click", function () {
      var ticked = 0;
      var lines = rows.map(function (row) {
        var line = JSON.parse(row.dataset.line);
        var box = row.cells[accept].querySelector("input");
        line[meant] = row.cells[meant].querySelector("input").value;
        if (box.checked) {
          line[accept] = "yes";
          ticked++;
        } else if (!/^\s*no\s*$/i.test(line[accept])) {
          line[accept] = "";
        }
        return line.map(cell).join(",");
      });
      var file = new Blob([names.map(cell).join(",") + "\n" + lines.join("\n") + "\n"], { type: "text/csv;charset=utf-8" });
      var link = make("a", { href: URL.createObjectURL(file), download: table.dataset.file });
      link.click();
      setTimeout(function () { URL.revokeObjectURL(link.href); }, 10000);
      said.textContent = ticked + " accepted; put the file where the plan reads it, and run again";
    });
    tools(table).append(button, said);
  }

  Array.prototype.forEach.call(document.querySelectorAll("table.sorts"), function (table) {
    if (table.dataset.file) {
      proposals(table);
    }
    if (table.tBodies[0].rows.length > FEW) {
      filters(table);
    }
    sorts(table);
  });

  addEventListener("beforeprint", function () {
    document.querySelectorAll("details").forEach(function (one) { one.open = true; });
  });
})();

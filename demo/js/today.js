// marks the row of the next boat
var rows = document.querySelectorAll("table.times tr");
var hour = new Date().getHours();
for (var i = 1; i < rows.length; i++) {
  var first = rows[i].cells[0];
  if (first && parseInt(first.textContent, 10) === hour) rows[i].style.fontWeight = "bold";
}

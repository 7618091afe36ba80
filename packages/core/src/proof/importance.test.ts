import { checkRows, page, row } from '../testing/proofRows.ts';

checkRows([
  row(
    'a declaration becomes important where nothing moves',
    'same',
    page('<style>p { color: red }</style>'),
    page('<style>p { color: red !important }</style>'),
  ),
  row(
    'a style attribute becomes an important rule',
    'same',
    page('<style>#i { color: red }</style>', '<p id=i style="color: lime">a'),
    page('<style>#i { color: red } .c { color: lime !important }</style>', '<p id=i class=c>a'),
  ),
  row(
    'an important rule beats another one',
    'differs',
    page('<style>p { color: blue !important }</style>', '<p style="color: lime">a'),
    page('<style>p { color: blue !important } .c { color: lime !important }</style>', '<p class=c>a'),
    true,
  ),
  row(
    'a declaration becomes important, and an animation runs',
    'differs',
    page('<style>@keyframes k { from, to { color: blue } } p { color: red; animation: k 9s infinite }</style>'),
    page(
      '<style>@keyframes k { from, to { color: blue } } p { color: red !important; animation: k 9s infinite }</style>',
    ),
    true,
  ),
  row(
    'a declaration becomes important, and a transition is declared',
    'differs',
    page('<style>p { color: red; transition: color 1s } p:hover { color: blue }</style>'),
    page('<style>p { color: red; transition: color 1s } p:hover { color: blue !important }</style>'),
  ),
  row(
    'a declaration becomes important, and a script may animate',
    'differs',
    page(
      '<style>p { color: red }</style>',
      '<p>a</p><script>document.querySelector("p").animate([{ color: "blue" }, { color: "blue" }], 99999)</script>',
    ),
    page(
      '<style>p { color: red !important }</style>',
      '<p>a</p><script>document.querySelector("p").animate([{ color: "blue" }, { color: "blue" }], 99999)</script>',
    ),
    true,
  ),
  row(
    'a declaration that rolls back becomes important',
    'differs',
    page('<style>p { color: red } p { color: revert }</style>'),
    page('<style>p { color: red } p { color: revert !important }</style>'),
  ),
  row(
    'the width of what a visitor may draw wider',
    'differs',
    page('<style>textarea { width: 90px }</style>', '<textarea></textarea>'),
    page('<style>textarea { width: 90px !important }</style>', '<textarea></textarea>'),
  ),
  row(
    '… where a rule lets him',
    'differs',
    page('<style>p { width: 90px; resize: both; overflow: auto }</style>'),
    page('<style>p { width: 90px !important; resize: both; overflow: auto }</style>'),
  ),
  row(
    '… its colour',
    'same',
    page('<style>textarea { color: red }</style>', '<textarea></textarea>'),
    page('<style>textarea { color: red !important }</style>', '<textarea></textarea>'),
  ),
  row(
    'an animated drawing',
    'differs',
    page(
      '<style>rect { fill: red }</style>',
      '<svg><rect width=9 height=9><animate attributeName=fill values="blue;blue" dur=9s repeatCount=indefinite /></rect></svg>',
    ),
    page(
      '<style>rect { fill: red !important }</style>',
      '<svg><rect width=9 height=9><animate attributeName=fill values="blue;blue" dur=9s repeatCount=indefinite /></rect></svg>',
    ),
  ),
]);

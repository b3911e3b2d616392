<?php
// Changes elements as they are printed. They are known by all of their attributes but those that name the candidates, of
// which the system has more by then.
ob_start(function ($html) {
  $all = json_decode(file_get_contents(__DIR__ . '/markup.json'), true);
  $read = function ($tag) {
    preg_match_all('/([^\s"\'<>\/=]+)(?:=("[^"]*"|\'[^\']*\'))?/', substr($tag, 4), $found, PREG_SET_ORDER);
    $attributes = [];
    foreach ($found as $one)
      $attributes[$one[1]] = html_entity_decode(trim($one[2] ?? '', '"\''), ENT_QUOTES | ENT_HTML5);
    return $attributes;
  };
  $key = function ($attributes) {
    unset($attributes['srcset'], $attributes['sizes']);
    return json_encode($attributes);
  };
  $due = [];
  foreach ($all[$_SERVER['REQUEST_URI']] ?? [] as $one)
    $due[$key($read($one['before']))] = $one['changes'];
  return preg_replace_callback('/<img\b[^>]*>/', function ($found) use ($due, $read, $key) {
    $attributes = $read($found[0]);
    $changes = $due[$key($attributes)] ?? null;
    if ($changes === null) return $found[0];
    foreach ($changes as $one)
      if ($one['action'] === 'remove') unset($attributes[$one['name']]);
      else $attributes[$one['name']] = $one['value'];
    $tag = '<img';
    foreach ($attributes as $name => $value) $tag .= " $name=\"" . htmlspecialchars($value) . '"';
    return $tag . '>';
  }, $html);
});

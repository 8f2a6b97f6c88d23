<?php

declare(strict_types=1);

/*
 * Says which lines are longer than 140 characters, in everything that is written by hand. Left out are lock files, pictures,
 * what is generated, data of one record a line, and message files.
 *
 *   php bin/lib/lines.php       exits 1 when there is any
 */

const MOST = 140;
const NOT_BY_HAND = '#(\\.(lock|png|svg|woff2|jsonl|po)|package-lock\\.json|schema\\.d\\.ts|docs/openapi\\.json'
    .'|lang/[a-z]+\\.json|database/demo/rules/.*)$#';

exec('git ls-files --cached --others --exclude-standard', $files);
$long = 0;
foreach ($files as $file) {
    if (preg_match(NOT_BY_HAND, $file) === 1 || ! is_file($file)) {
        continue;
    }
    foreach (file($file, FILE_IGNORE_NEW_LINES) ?: [] as $number => $line) {
        if (mb_strlen($line) > MOST) {
            $long++;
            printf("%s:%d has %d characters\n", $file, $number + 1, mb_strlen($line));
        }
    }
}
exit($long === 0 ? 0 : 1);

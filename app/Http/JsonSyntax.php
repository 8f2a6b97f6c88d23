<?php

declare(strict_types=1);

namespace App\Http;

/** Finds where a text stops being JSON (RFC 8259), which PHP's own reader does not say. */
final class JsonSyntax
{
    private const TOKEN = '/\G[ \t\r\n]*(?:([{}\[\],:])|("(?:[^"\\\\\x00-\x1f]|\\\\(?:["\\\\\/bfnrt]|u[0-9a-fA-F]{4}))*+")'
        .'|(-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?(?![\w.])|(?:true|false|null)(?!\w)))/';

    /** @return int bytes before the first that cannot stand there; the length where the text ends too early */
    public static function brokenAt(string $text): int
    {
        $open = [];
        // What may come next: a value, a key, what follows either, or nothing.
        $expected = 'value';
        $at = 0;
        while (true) {
            $start = $at + strspn($text, " \t\r\n", $at);
            if ($start >= strlen($text) || preg_match(self::TOKEN, $text, $found, 0, $at) !== 1) {
                return $start;
            }
            $sign = $found[1];
            $isText = ($found[2] ?? '') !== '';
            $inside = end($open);
            $next = match (true) {
                $sign === '{' && self::mayBegin($expected) => 'key or end',
                $sign === '[' && self::mayBegin($expected) => 'value or end',
                $sign === '' && self::mayBegin($expected) => 'after',
                $isText && ($expected === 'key' || $expected === 'key or end') => 'colon',
                $sign === ':' && $expected === 'colon' => 'value',
                $sign === ',' && $expected === 'after' && $inside !== false => $inside === '{' ? 'key' : 'value',
                $sign === '}' && $inside === '{' && ($expected === 'after' || $expected === 'key or end'),
                $sign === ']' && $inside === '[' && ($expected === 'after' || $expected === 'value or end') => 'after',
                default => null,
            };
            if ($next === null) {
                return $start;
            }
            if ($sign === '{' || $sign === '[') {
                $open[] = $sign;
            } elseif ($sign === '}' || $sign === ']') {
                array_pop($open);
            }
            $at = $start + strlen(ltrim($found[0], " \t\r\n"));
            $expected = $next;
        }
    }

    private static function mayBegin(string $expected): bool
    {
        return $expected === 'value' || $expected === 'value or end';
    }
}

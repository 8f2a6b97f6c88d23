<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use VividLedger\Words\Words;

/** Things that are kept under a name: found by it, made where there is none, changed where it says something else. */
abstract class NamedPart implements SetupPart
{
    /** How much of a text a sentence shows. */
    private const SHOWN = 60;

    /** @return array<int, array<string, mixed>> documents by id */
    abstract protected function kept(): array;

    /** @param  array<string, mixed>  $document */
    abstract protected function keep(?int $id, array $document, int $by): void;

    public static function isInOrder(): bool
    {
        return false;
    }

    public function documents(): array
    {
        return array_values($this->kept());
    }

    public static function key(array $document): string
    {
        return (string) $document['name'];
    }

    public function difference(?array $here, array $there): array
    {
        if ($here === null) {
            return [];
        }
        $said = [];
        foreach (array_keys($here + $there) as $member) {
            [$was, $is] = [$here[$member] ?? null, $there[$member] ?? null];
            if (! self::same($was, $is)) {
                $isShort = ! is_array($was) && ! is_array($is);
                $label = ucfirst(strtolower((string) preg_replace('/(?<!^)[A-Z]/', ' $0', $member)));
                $said[] = $isShort ? Words::say(
                    '{label}: {before} becomes {after}.',
                    label: $label,
                    before: self::short($was),
                    after: self::short($is),
                ) : Words::say('{label} says something else.', label: $label);
            }
        }

        return $said;
    }

    public function bring(array $document, Bringing $how): void
    {
        foreach ($this->kept() as $id => $kept) {
            if (static::key($kept) === static::key($document)) {
                if (! self::same($kept, $document)) {
                    $this->keep($id, $document, $how->by);
                }

                return;
            }
        }
        $this->keep(null, $document, $how->by);
    }

    /** Whether two documents say the same: the order of members says nothing. */
    public static function same(mixed $one, mixed $other): bool
    {
        return self::ordered($one) === self::ordered($other);
    }

    private static function ordered(mixed $value): mixed
    {
        if ($value instanceof \stdClass) {
            $value = (array) $value;
        }
        if (! is_array($value)) {
            return $value;
        }
        $value = array_map(self::ordered(...), $value);
        if (! array_is_list($value)) {
            ksort($value);
        }

        return $value;
    }

    private static function short(mixed $value): string
    {
        $text = is_string($value) ? trim(strip_tags($value)) : (string) json_encode($value);

        return $value === null ? 'nothing' : '“'.(mb_strlen($text) > self::SHOWN ? mb_substr($text, 0, self::SHOWN).'…' : $text).'”';
    }
}

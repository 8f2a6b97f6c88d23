<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A part of a rule as another slot has it in words; what has none stands as JSON between ⟦ and ⟧, so that every rule has a text. */
final readonly class RawSlot implements Slot
{
    public function __construct(private Slot $of)
    {
    }

    /** Each piece that is printed is read back at once: what would not come back the same is put between those brackets. */
    public function print(mixed $json, Scope $scope, array $around): string
    {
        $text = $this->of->print($json, $scope, $around);
        if ($text === null) {
            return self::raw($json);
        }
        [, $read] = Nearest::heard($text, fn (Typed $typed): array => $this->of->parse($typed, 0, $scope, $around));

        return count($read) === 1 && RuleText::same($read[0], $json) ? $text : self::raw($json);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $raw = self::parseRaw($typed, $at);

        return $raw === null ? $this->of->parse($typed, $at, $scope, $around) : [$raw];
    }

    public static function raw(mixed $json): string
    {
        return '⟦'.json_encode($json, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_HEX_QUOT | JSON_HEX_APOS).'⟧';
    }

    public static function parseRaw(Typed $typed, int $at): ?Parsed
    {
        $found = $typed->pattern($at, '⟦([^⟧]*)⟧', '');
        $json = $found === null ? null : json_decode(strtr($found[0][1], ['“' => '"', '”' => '"']), true);

        return $found !== null && is_array($json) ? new Parsed($json, $found[1]) : null;
    }

    public function schema(): array
    {
        return $this->of->schema();
    }
}

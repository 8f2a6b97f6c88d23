<?php

declare(strict_types=1);

namespace VividLedger\Text;

use Closure;
use VividLedger\Shape\Scope;

/** A slot made of two functions. */
final readonly class Simple implements Covers
{
    /**
     * @param  Closure(mixed, Scope, array<mixed>): ?string  $print
     * @param  Closure(Cursor, Scope, array<mixed>): ?array{mixed}  $parse
     * @param  list<string>  $keys  that it covers, where it stands for several
     */
    public function __construct(private Closure $print, private Closure $parse, private array $keys = [])
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return ($this->print)($json, $scope, $around);
    }

    public function parse(Cursor $cursor, Scope $scope, array $around): ?array
    {
        return ($this->parse)($cursor, $scope, $around);
    }

    public function keys(): array
    {
        return $this->keys;
    }

    /** A quotation. */
    public static function quoted(): self
    {
        return new self(
            static fn (mixed $json): ?string => is_string($json) && ! str_contains($json, "\r")
                && $json !== '' ? Cursor::quote($json) : null,
            static fn (Cursor $cursor): ?array => ($text = $cursor->quoted()) === null ? null : [$text],
        );
    }

    /** A whole number. */
    public static function whole(): self
    {
        return new self(
            static fn (mixed $json): ?string => is_int($json) && $json >= 0 ? (string) $json : null,
            static fn (Cursor $cursor): ?array => ($found = $cursor->pattern('\d{1,9}', 'a number')) === null ? null : [(int) $found[0]],
        );
    }

    /**
     * One of some labels.
     *
     * @param  Closure(Scope, array<mixed>): array<string, mixed>  $labels  what each stands for
     */
    public static function labelled(Closure $labels): self
    {
        return new self(
            static function (mixed $json, Scope $scope, array $around) use ($labels): ?string {
                $found = array_search($json, $labels($scope, $around), true);

                return $found === false ? null : (string) $found;
            },
            static fn (Cursor $cursor, Scope $scope, array $around): ?array => $cursor->label($labels($scope, $around)),
        );
    }

    /** Whole sentences in a row, "…; and …", at least so many. */
    public static function series(Slot $one, int $least): self
    {
        return new self(
            static function (mixed $json, Scope $scope, array $around) use ($one, $least): ?string {
                $texts = is_array($json) && array_is_list($json) ? array_map(
                    static fn (mixed $item): ?string => $one->print($item, $scope, $around),
                    $json,
                ) : [];

                return count($texts) < $least || in_array(null, $texts, true) ? null : implode('; and ', $texts);
            },
            static function (Cursor $cursor, Scope $scope, array $around) use ($one, $least): ?array {
                $items = [];
                do {
                    $item = $one->parse($cursor, $scope, $around);
                    if ($item === null) {
                        return null;
                    }
                    $items[] = $item[0];
                } while ($cursor->pattern(';\s*(?:and\b)?', '; and', true) !== null);

                return count($items) < $least ? null : [$items];
            },
        );
    }

    /** A list of what another slot reads. */
    public static function many(Slot $one, string $last): self
    {
        return new self(
            static function (mixed $json, Scope $scope, array $around) use ($one, $last): ?string {
                if (! is_array($json) || ! array_is_list($json) || $json === []) {
                    return null;
                }
                $texts = [];
                foreach ($json as $item) {
                    $text = $one->print($item, $scope, $around);
                    if ($text === null) {
                        return null;
                    }
                    $texts[] = $text;
                }
                $end = array_pop($texts);

                return $texts === [] ? $end : implode(', ', $texts)." {$last} {$end}";
            },
            static function (Cursor $cursor, Scope $scope, array $around) use ($one, $last): ?array {
                $items = [];
                do {
                    $start = $cursor->at;
                    // A comma, or the last word, can belong to what follows the list.
                    $comma = $items !== [] && $cursor->pattern(',', ',') !== null;
                    $isNext = $items === [] || $cursor->words($last) || $comma;
                    $item = $isNext ? $one->parse($cursor, $scope, $around) : null;
                    if ($item === null) {
                        $cursor->at = $start;
                        break;
                    }
                    $items[] = $item[0];
                } while (true);
                if ($items === []) {
                    return null;
                }

                return [$items];
            },
        );
    }
}

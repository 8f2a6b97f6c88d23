<?php

declare(strict_types=1);

namespace Bench;

/** What a run measured: printed as it comes, and kept as one JSON file. */
final class Figures
{
    /** @var list<array<string, string|float|null>> */
    private static array $figures = [];

    private static string $part = '';

    public static function begin(string $part): void
    {
        self::$part = $part;
        printf("  %s\n", $part);
    }

    /**
     * A figure beside its floor.
     *
     * @param  string  $unit  of both
     * @param  float  $wanted  the greatest ratio that is good enough
     */
    public static function pair(string $what, float $ours, string $beside, float $floor, string $unit, float $wanted): void
    {
        printf(
            "    %-58s %12s %s\n    %-58s %12s %s\n    %-58s %11.2fx   (wanted: at most %gx)\n\n",
            $what, self::number($ours), $unit, "  floor: {$beside}", self::number($floor), $unit, '  ratio', $ours / $floor, $wanted,
        );
        self::$figures[] = [
            'part' => self::$part, 'what' => $what, 'value' => $ours, 'unit' => $unit, 'floor' => $floor, 'beside' => $beside,
            'ratio' => round($ours / $floor, 3), 'wanted' => "at most {$wanted}x",
        ];
    }

    /** A figure that has no floor. */
    public static function one(string $what, float $value, string $unit, string $wanted): void
    {
        printf("    %-58s %12s %s   (wanted: %s)\n\n", $what, self::number($value), $unit, $wanted);
        self::$figures[] = [
            'part' => self::$part, 'what' => $what, 'value' => $value, 'unit' => $unit, 'floor' => null, 'beside' => null, 'ratio' => null,
            'wanted' => $wanted,
        ];
    }

    /** What helps to read the figure that follows. */
    public static function note(string $what): void
    {
        printf("    %s\n", $what);
    }

    public static function write(string $path): void
    {
        $run = [
            'at' => gmdate('Y-m-d\TH:i:s\Z'), 'php' => PHP_VERSION, 'system' => php_uname('s').' '
                .php_uname('m'), 'figures' => self::$figures,
        ];
        file_put_contents($path, json_encode($run, JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE)."\n");
    }

    private static function number(float $value): string
    {
        return number_format($value, match (true) {
            abs($value) < 1 => 3,
            abs($value) < 100 => 2,
            default => 0,
        });
    }
}

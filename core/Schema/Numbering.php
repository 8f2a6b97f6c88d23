<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** How records are numbered by themselves: "INV-{year}-{0000}" counts anew each year, "K-{000}" for ever. */
final readonly class Numbering
{
    private function __construct(private string $pattern)
    {
    }

    /** @return ?self null when the pattern counts nothing, or says something else in braces */
    public static function of(string $pattern): ?self
    {
        $rest = str_replace(['{year}', '{month}'], '', $pattern, $dated);
        $isSound = preg_match_all('/\{0{1,9}\}/', $rest) === 1 && preg_match('/[{}]/', (string) preg_replace('/\{0+\}/', '', $rest)) === 0;
        // Months of no year would come again.
        $isSound = $isSound && ! (str_contains($pattern, '{month}') && ! str_contains($pattern, '{year}'));

        return $isSound && mb_strlen($pattern) <= 60 ? new self($pattern) : null;
    }

    /** Within what it counts: a text that is another one once counting begins anew. */
    public function period(\DateTimeImmutable $day): string
    {
        return (string) preg_replace('/\{0+\}/', '', $this->dated($day));
    }

    public function number(\DateTimeImmutable $day, int $count): string
    {
        return (string) preg_replace_callback(
            '/\{(0+)\}/',
            static fn (array $found): string => str_pad((string) $count, strlen($found[1]), '0', STR_PAD_LEFT),
            $this->dated($day),
        );
    }

    private function dated(\DateTimeImmutable $day): string
    {
        return strtr($this->pattern, ['{year}' => $day->format('Y'), '{month}' => $day->format('m')]);
    }
}

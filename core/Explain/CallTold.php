<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\Rule\Performance\CallMade;
use VividLedger\Words\Words;

/** How a call ended, as an entry keeps it, and in words. */
final class CallTold
{
    /**
     * @param  string  $trouble  what the other side, or the way to it, said
     * @param  int  $unsure  how often it may have been taken without our knowing
     * @return array<string, mixed> as an entry keeps it
     */
    public static function of(
        string $endpoint, string $ended, int $tries = 1, string $trouble = '', int $unsure = 0, bool $isMadeUp = false,
    ): array {
        return array_filter([
            'endpoint' => $endpoint, 'ended' => $ended, 'tries' => $tries, 'trouble' => $trouble, 'unsure' => $unsure,
            'madeUp' => $isMadeUp,
        ], static fn (mixed $value): bool => $value !== '' && $value !== 0 && $value !== false);
    }

    public static function said(Kept $kept): string
    {
        $lines = [];
        if ($kept->is('madeUp')) {
            $lines[] = Words::say('The answer is made up: nothing leaves the house in a rehearsal.');
        }
        if ($kept->number('tries') > 1) {
            $lines[] = Words::counted($kept->number('tries'), '{count} try.|{count} tries.');
        }
        if ($kept->text('trouble') !== '') {
            $lines[] = $kept->text('trouble');
        }
        if ($kept->number('unsure') > 0) {
            $lines[] = Words::say('The other side may have taken it more than once: it was sent again because it never said that it had.');
        }

        return implode("\n", $lines);
    }

    public static function hasSucceeded(Kept $kept): bool
    {
        return $kept->text('ended') === CallMade::SUCCEEDED;
    }
}

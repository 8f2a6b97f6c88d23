<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Typed;

/** An e-mail address or a phone number, in quotes; an address can do without them. */
final readonly class AddressSlot implements Slot
{
    private const BARE = '[^\s@“”,;]+@[^\s@“”,;]+\.[\p{L}]{2,}';

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $isBare = is_string($json) && preg_match('/^'.self::BARE.'$/Du', $json) === 1;

        return $isBare ? $json : (new Quoted)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $bare = $typed->pattern($at, self::BARE, '“…”', 3);
        $quoted = (new Quoted)->parse($typed, $at, $scope, $around);

        return [
            ...array_filter($quoted, static fn (Parsed $one): bool => is_string($one->json) && self::isAddress($one->json)),
            ...($bare === null ? [] : [new Parsed($bare[0][0], $bare[1])]),
        ];
    }

    public function schema(): array
    {
        return Json::text();
    }

    /** What is no address is no recipient, but can be the name of a letter. */
    private static function isAddress(string $text): bool
    {
        return str_contains($text, '@') || preg_match('/^\+?[\d ()\/.-]{4,40}$/D', $text) === 1;
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Letter;

use VividLedger\Message\Channel;
use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Typed;
use VividLedger\Template\LightText;
use VividLedger\Template\Pieces;

/** The text of a message, in quotes: as it is for a text message, in light marks where it can be formatted. */
final readonly class LetterText implements Slot
{
    public const LENGTH = 50_000;

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $light = self::isFormatted($around) && is_string($json) ? LightText::of($json) : null;

        return (new Quoted)->print($light ?? $json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $quoted = (new Quoted)->parse($typed, $at, $scope, $around);

        return ! self::isFormatted($around) ? $quoted : array_map(
            static fn (Parsed $one): Parsed => $one->as(LightText::html(
                is_string($one->json) ? $one->json : '',
                static fn (string $path): string => self::called($path, $scope),
            )),
            $quoted,
        );
    }

    public function schema(): array
    {
        return Json::text(self::LENGTH, 0);
    }

    /** @param  array<mixed>  $around  the line */
    private static function isFormatted(array $around): bool
    {
        return ($around['channel'] ?? null) !== Channel::Sms->value;
    }

    private static function called(string $path, Scope $scope): string
    {
        foreach (Pieces::besides($scope->schema, $scope->type) as $piece) {
            if ($piece->name() === $path) {
                return $piece->label();
            }
        }

        return $scope->schema->path($scope->type, $path)?->label() ?? $path;
    }
}

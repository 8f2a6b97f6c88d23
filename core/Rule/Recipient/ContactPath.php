<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Schema\FieldType;
use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Typed;

/** A field that leads to somebody outside who can be written to: a contact, an e-mail address, a phone number. */
final readonly class ContactPath implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return self::isContact($json, $scope) ? (new FieldPath)->print($json, $scope, $around) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return array_values(array_filter(
            FieldPath::all($typed, $at, $scope),
            static fn (Parsed $one): bool => self::isContact($one->json, $scope),
        ));
    }

    public function schema(): array
    {
        return Json::ref('path');
    }

    private static function isContact(mixed $name, Scope $scope): bool
    {
        $field = is_string($name) ? $scope->schema->path($scope->type, $name)?->field : null;
        $target = $field?->target === null ? null : $scope->schema->type($field->target);

        return $field?->type === FieldType::Email || $field?->type === FieldType::Phone
            || ($target !== null && ToContact::field($target, FieldType::Email) !== null);
    }
}

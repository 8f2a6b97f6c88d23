<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Shape\Json;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\Typed;

/** To whom a message goes: "the owner, the Contact and everybody in Sales". */
final readonly class RecipientsSlot implements Slot
{
    public function __construct(private int $least = 0, private int $most = Recipients::MOST)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return self::list()->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $typed->once(
            "recipients:{$scope->type->name}",
            $at,
            static fn (): array => self::list()->parse($typed, $at, $scope, $around),
        );
    }

    public function schema(): array
    {
        return [
            'type' => 'array', ...($this->least > 0 ? ['minItems' => $this->least] : []), 'maxItems' => $this->most,
            'items' => Json::ref('recipient'),
        ];
    }

    private static function list(): Many
    {
        static $list = null;

        return $list instanceof Many ? $list : $list = new Many(new OneShape(static fn (): array => array_map(
            static fn (string $recipient): Shape => $recipient::shape(),
            Recipients::all(),
        ), 'recipient'), 'and');
    }
}

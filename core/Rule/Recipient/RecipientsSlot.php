<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Message\Channel;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Json;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;

/** To whom a message goes: "the owner, the Contact and everybody in Sales". */
final readonly class RecipientsSlot implements Worded
{
    /**
     * @param  Gap  $gap  what is told where nobody stands
     * @param  bool  $isOfMail  whether only an e-mail takes them
     */
    public function __construct(
        private int $least = 0,
        private int $most = Recipients::MOST,
        private Gap $gap = new Gap('choose who', 'Choose who gets the message.'),
        private bool $isOfMail = false,
    ) {
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

    public function read(Context $context, Node $node, Filled $around): ?Recipients
    {
        $next = "{$node->at}/".count($node->items());
        if ($node->items() === [] && $this->least > 0) {
            return $context->gap($this->gap->text, $next, Recipients::chooser($context), 'missing', $this->gap->message);
        }
        $read = Recipients::read($context, $node);
        if ($node->items() !== [] && count($node->items()) < $this->most) {
            $context->more('+ recipient', $next, Recipients::chooser($context));
        }

        return $read;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if (! $this->isOfMail || $around->any('channel', Channel::class) === Channel::Email) {
            $context->more($this->gap->more, "{$node->at}/0", Recipients::chooser($context));
        }
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
        return Kinds::once(self::class, static fn (): Many => new Many(new OneShape(static fn (): array => array_map(
            static fn (string $recipient): Shape => $recipient::shape(),
            Recipients::all(),
        ), 'recipient'), 'and'));
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Words\Words;

/** A fixed e-mail address or phone number. */
final readonly class ToAddress implements Recipient
{
    private function __construct(private string $address)
    {
    }

    public static function kind(): string
    {
        return 'address';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{address}')->slot('address', new AddressSlot);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $address = trim($node->child('address')->text() ?? '');
        $sound = filter_var($address, FILTER_VALIDATE_EMAIL) !== false || preg_match('#^\+?[0-9 ()/.-]{4,40}$#', $address) === 1;

        return $sound ? new self($address) : $context->gap(
            $address === '' ? 'which address?' : "“{$address}”",
            $node->child('address')->at,
            Editor::line('An e-mail address, or a phone number', 200),
            'wrong_type',
            Words::say('‘{address}’ is neither an e-mail address nor a phone number.', address: $address),
        );
    }

    public static function offers(Context $context): array
    {
        return [new Offer('an address…', ['kind' => self::kind(), 'address' => ''], 'Anybody')];
    }

    public function reach(ActionContext $performance, Channel $channel): Reached
    {
        $fits = match ($channel) {
            Channel::Email => str_contains($this->address, '@'),
            Channel::Sms => ! str_contains($this->address, '@'),
            Channel::App => false,
        };

        return $fits ? new Reached(
            [new Address($this->address, $this->address)],
            $this->address,
        ) : new Reached([], "{$this->address} takes no {$channel->label()}");
    }
}

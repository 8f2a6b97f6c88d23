<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\House\Person;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\People\PersonExpressions;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\Finder;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Words\Words;

/** Whomever a person expression finds. */
final readonly class ToPerson implements Recipient
{
    private function __construct(private Who $person)
    {
    }

    public static function kind(): string
    {
        return 'person';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{person}')->slot('person', new PersonSlot);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $person = PersonExpressions::read($context, $node->child('person'));

        return $person === null ? $context->problem($node->at, 'missing', Words::say('Choose a person.')) : new self($person);
    }

    public static function offers(Context $context): array
    {
        return array_map(static fn (Offer $offer): Offer => new Offer(
            $offer->label,
            ['kind' => self::kind(), 'person' => $offer->value],
            $offer->group,
            $offer->hint,
        ), PersonExpressions::offers($context));
    }

    public function reach(ActionContext $performance, Channel $channel): Reached
    {
        $found = Finder::find($this->person, $performance);
        $address = $found->person === null ? null : self::address($found->person, $channel);

        return new Reached(
            $address === null ? [] : [$address],
            $found->person !== null && $address === null ? "{$found->path}, who has no phone number" : $found->path,
        );
    }

    /** @return ?Address null for a text message to somebody without a phone number */
    public static function address(Person $person, Channel $channel): ?Address
    {
        return match ($channel) {
            Channel::App => new Address($person->name, '', $person->id),
            Channel::Email => $person->email === '' ? null : new Address($person->name, $person->email, $person->id),
            Channel::Sms => $person->phone === '' ? null : new Address($person->name, $person->phone, $person->id),
        };
    }
}

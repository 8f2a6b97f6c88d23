<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Message\Channel;
use VividLedger\People\PersonExpressions;
use VividLedger\Rule\Performance\Performance;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordRole;

/** A list of recipients. A new kind is a new file and one line here. */
final readonly class Recipients
{
    /** @var list<class-string<Recipient>> */
    public const ALL = [ToPerson::class, ToContact::class, ToAddress::class, ToTeam::class, ToFollowers::class];

    public const MOST = 20;

    /** @param  list<Recipient>  $all */
    private function __construct(private array $all)
    {
    }

    /** @return ?self null when one is unfinished; an empty list is sound */
    public static function read(Context $context, Node $list): ?self
    {
        $items = $list->items();
        $all = [];
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue($index === count($items) - 1 ? 'and' : ',');
            }
            $recipient = self::one($context, $item);
            $offers = static fn (): array => self::offers($context);
            if ($recipient === null) {
                $context->word('somebody', WordRole::Missing, $item->at, Edit::Recipients);
                $context->choice('', WordRole::More, $item->at, $offers);
            } else {
                $context->word($recipient->wording(), WordRole::Person, $item->at, Edit::Recipients);
                $context->choice('', WordRole::More, $item->at, $offers);
                $all[] = $recipient;
            }
        }
        if (count($items) > self::MOST) {
            return $context->problem($list->at, 'too_many', 'At most '.self::MOST.' recipients.');
        }

        return count($all) === count($items) ? new self($all) : null;
    }

    public function isEmpty(): bool
    {
        return $this->all === [];
    }

    public function reach(Performance $performance, Channel $channel): Reached
    {
        $addresses = [];
        $paths = [];
        foreach ($this->all as $recipient) {
            $reached = $recipient->reach($performance, $channel);
            $paths[] = $reached->path;
            foreach ($reached->addresses as $address) {
                // Nobody gets the same message twice because two ways led to them.
                $addresses["{$address->address}|{$address->personId}"] ??= $address;
            }
        }

        return new Reached(array_values($addresses), implode('; ', $paths));
    }

    /** @return list<Offer> */
    public static function offers(Context $context): array
    {
        $offers = [];
        foreach ($context->type->ownFields() as $field) {
            $target = $field->target === null ? null : $context->schema->type($field->target);
            if ($field->type === FieldType::Email || $field->type === FieldType::Phone
                || ($target !== null && ToContact::field($target, FieldType::Email) !== null)) {
                $offers[] = new Offer("the {$field->label}", ['kind' => 'field', 'path' => $field->name], 'Contacts');
            }
        }
        $offers[] = new Offer('whoever follows it', ['kind' => 'followers'], 'From the record');
        foreach (PersonExpressions::offers($context) as $offer) {
            $offers[] = new Offer($offer->label, ['kind' => 'person', 'person' => $offer->value], $offer->group, $offer->hint);
        }
        foreach ($context->directory->teams() as $team) {
            $offers[] = new Offer("everybody in {$team}", ['kind' => 'team', 'team' => $team], 'Teams');
        }

        return $offers;
    }

    private static function one(Context $context, Node $node): ?Recipient
    {
        foreach (self::ALL as $recipient) {
            if ($recipient::kind() === $node->kind()) {
                return $recipient::read($context, $node);
            }
        }

        return $context->problem($node->at, 'missing', 'Choose who gets the message.');
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Message\Channel;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A list of recipients. A new kind is a new file and one line here. */
final readonly class Recipients
{
    /** @var list<class-string<Recipient>> */
    public const ALL = [ToContact::class, ToFollowers::class, ToPerson::class, ToTeam::class, ToDeciders::class, ToAddress::class];

    public const MOST = 20;

    /** @param  list<Recipient>  $all */
    public function __construct(private array $all)
    {
    }

    /** @return list<class-string<Recipient>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    /** @param  bool  $isThere  whether somebody stands there who can be taken away */
    public static function chooser(Context $context, bool $isThere = false): Editor
    {
        return Editor::choose('To whom', static fn (): array => [
            ...array_merge(...array_map(static fn (string $recipient): array => $recipient::offers($context), self::all())),
            ...($isThere ? [new Offer('remove this one', null, 'Anybody')] : []),
        ]);
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
            $words = $context->words();
            $recipient = self::one($context, $item);
            $chooser = self::chooser($context, true);
            if ($recipient === null) {
                // What is missing may have said so itself.
                $context->words() > $words || $context->word('somebody', WordRole::Missing, $item->at, $chooser);
            } else {
                $context->word($context->said($recipient::shape(), $item->raw), WordRole::Person, $item->at, $chooser);
                $all[] = $recipient;
            }
        }
        if (count($items) > self::MOST) {
            return $context->problem($list->at, 'too_many', Words::say('At most {most} recipients.', most: self::MOST));
        }

        return count($all) === count($items) ? new self($all) : null;
    }

    public function isEmpty(): bool
    {
        return $this->all === [];
    }

    public function reach(ActionContext $performance, Channel $channel): Reached
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

    private static function one(Context $context, Node $node): ?Recipient
    {
        foreach (self::all() as $recipient) {
            if ($recipient::kind() === $node->kind()) {
                return $recipient::read($context, $node);
            }
        }

        return $context->problem($node->at, 'missing', Words::say('Choose who gets the message.'));
    }
}

<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Facts\SignOffSeen;
use VividLedger\Message\Channel;
use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Words\Words;

/** Everybody who said yes, or no, to the latest sign-off of the record, or is still being asked. */
final readonly class ToDeciders implements Recipient
{
    private const WHO = ['agreed' => 'yes', 'declined' => 'no', 'is still asked' => 'waiting'];

    private function __construct(private string $who)
    {
    }

    public static function kind(): string
    {
        return 'deciders';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('everybody who {who}')->orSaid('(everyone|all|all those) who {who}')
            ->slot('who', Labels::of(self::WHO, ['approved' => 'yes', 'signed it off' => 'yes', 'said yes' => 'yes', 'said no' => 'no']));
    }

    public static function read(Context $context, Node $node): ?self
    {
        $who = $node->child('who')->text() ?? '';

        return in_array($who, self::WHO, true) ? new self($who)
            : $context->problem($node->at, 'wrong_type', Words::say('Choose who: those who agreed, declined, or are still asked.'));
    }

    public static function offers(Context $context): array
    {
        $isAsked = $context->sheet->waitables->lines(WaitedSort::SignOff) !== [];

        return ! $isAsked ? [] : array_map(static function (string $who) use ($context): Offer {
            $one = ['kind' => self::kind(), 'who' => $who];

            return new Offer($context->said(self::shape(), $one), $one, 'Sign-offs');
        }, array_values(self::WHO));
    }

    public function reach(ActionContext $performance, Channel $channel): Reached
    {
        $seen = $performance->facts->signOffOn($performance->record->type, $performance->record->id);
        $addresses = [];
        foreach ($seen === null ? [] : $this->ids($seen) as $id) {
            $person = $performance->facts->person($id);
            $addresses[] = $person?->active === true ? ToPerson::address($person, $channel) : null;
        }
        $addresses = array_values(array_filter($addresses));

        return new Reached($addresses, ($addresses === [] ? 'nobody who ' : 'everybody who ').array_search($this->who, self::WHO, true));
    }

    /** @return list<int> */
    private function ids(SignOffSeen $seen): array
    {
        return $this->who === 'waiting' ? $seen->waiting : $seen->who($this->who === 'yes');
    }
}

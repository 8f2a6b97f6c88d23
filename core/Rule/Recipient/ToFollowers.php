<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Message\Channel;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;

/** Everybody who follows the record. */
final readonly class ToFollowers implements Recipient
{
    public static function kind(): string
    {
        return 'followers';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('whoever follows it')->orSaid(
            '(the followers|all followers|its followers)[ of {}]',
            '(everyone|everybody|all|those|all those|anyone|people) who follow[s] {}',
            '(everyone|everybody|whoever) following {}', 'whoever follows {}', '(everyone|everybody) who follows {}', 'the {}’s followers',
        )->slot('', new ItsType);
    }

    public static function read(Context $context, Node $node): self
    {
        return new self;
    }

    public static function offers(Context $context): array
    {
        $all = ['kind' => self::kind()];

        return [new Offer($context->said(self::shape(), $all), $all, 'From the record')];
    }

    public function reach(ActionContext $performance, Channel $channel): Reached
    {
        $addresses = [];
        foreach ($performance->facts->followers($performance->record->type, $performance->record->id) as $id) {
            $person = $performance->facts->person($id);
            if ($person !== null && $person->active) {
                $addresses[] = ToPerson::address($person, $channel);
            }
        }
        $addresses = array_values(array_filter($addresses));

        return new Reached($addresses, $addresses === [] ? 'nobody follows it' : 'followers');
    }
}

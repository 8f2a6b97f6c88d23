<?php

declare(strict_types=1);

namespace VividLedger\Message;

use VividLedger\Engine\Performance;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;

/** Everybody who follows the record. */
final readonly class ToFollowers implements Recipient
{
    public static function kind(): string
    {
        return 'followers';
    }

    public static function read(Context $context, Node $node): self
    {
        return new self;
    }

    public function wording(): string
    {
        return 'whoever follows it';
    }

    public function reach(Performance $performance, Channel $channel): Reached
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

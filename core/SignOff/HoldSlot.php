<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Whether the record is locked while a sign-off waits, and what comes of the rules that it keeps away. */
final readonly class HoldSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?Hold
    {
        $hold = Hold::tryFrom($node->text() ?? '');
        if ($hold === null || $hold === Hold::Nothing) {
            $message = Words::say('Choose what becomes of the record meanwhile.');

            return $context->gap('choose what', $node->at, $this->editor(), 'wrong_type', $message);
        }
        $context->word($hold->said(), WordRole::Value, $node->at, $this->editor());

        return $hold;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('+ locked meanwhile', $node->at, $this->editor());
    }

    protected function slot(): Labels
    {
        return Labels::of(
            [Hold::Locked->said() => Hold::Locked->value, Hold::CatchUp->said() => Hold::CatchUp->value],
            ['lock the record meanwhile' => 'locked', 'lock it meanwhile' => 'locked', 'it is locked meanwhile' => 'locked'],
        );
    }

    private function editor(): Editor
    {
        return Editor::choose('The record meanwhile', static fn (): array => [
            new Offer(Hold::Nothing->said(), null),
            new Offer(Hold::Locked->said(), Hold::Locked->value),
            new Offer(Hold::CatchUp->said(), Hold::CatchUp->value),
        ]);
    }
}

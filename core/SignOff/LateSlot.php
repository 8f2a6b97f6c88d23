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

/** What becomes of it when somebody's time has run out. */
final readonly class LateSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?WhenLate
    {
        $late = WhenLate::tryFrom($node->text() ?? '');
        if ($late === null) {
            $message = Words::say('Choose what happens when nobody answers in time.');

            return $context->gap('choose what', $node->at, $this->editor(), 'wrong_type', $message);
        }
        $context->word($late->said(), WordRole::Value, $node->at, $this->editor());

        return $late;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('+ and then', $node->at, $this->editor());
    }

    protected function slot(): Labels
    {
        $labels = [];
        foreach (WhenLate::cases() as $late) {
            $labels[$late->said()] = $late->value;
        }

        return Labels::of($labels, ['ask them again' => WhenLate::AskAgain->value]);
    }

    private function editor(): Editor
    {
        return Editor::choose('When time runs out', static fn (): array => array_map(
            static fn (WhenLate $late): Offer => new Offer($late->said(), $late->value),
            // How often they are asked again is a word of its own.
            array_values(array_filter(WhenLate::cases(), static fn (WhenLate $late): bool => $late !== WhenLate::AskAgain)),
        ));
    }
}

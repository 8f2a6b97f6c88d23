<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Counted;

/** So many managers above somebody, the nearest first: "2 levels up from the owner". */
final readonly class LevelsUp implements Approvers
{
    private const MOST = 10;

    public function __construct(private Who $from, private int $levels)
    {
    }

    public static function kind(): string
    {
        return 'levels_up';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Deciders::chooser(...))->starts(['levels' => 2, 'from' => ['kind' => 'owner']])
            ->says('managers {levels} levels up from {from}')
            ->orSaid(
                '[the ]{levels} levels (up from|above) {from}',
                '[the ]{levels} managers above {from}',
                '{levels} levels up from {from}',
            )
            ->slot('levels', new Counted(1, self::MOST, label: 'Levels'))->slot('from', new PersonSlot);
    }

    public static function label(): string
    {
        return 'managers, so many levels up';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->the('from', Who::class), $read->number('levels'));
    }

    public function people(View $view): array
    {
        return array_slice(iterator_to_array(Tree::above($this->from->find($view)->person, $view->facts), false), 0, $this->levels);
    }

    public function followsTree(): bool
    {
        return true;
    }

    public function most(): int
    {
        return $this->levels;
    }
}

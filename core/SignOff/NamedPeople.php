<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\People\PeopleSlot;
use VividLedger\People\Who;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Several people, each found in some way: "the owner’s manager and Ulla Verne". */
final readonly class NamedPeople implements Approvers
{
    public const MOST = 10;

    /** @param  non-empty-list<Who>  $who */
    public function __construct(private array $who)
    {
    }

    public static function kind(): string
    {
        return 'people';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['people' => [['kind' => 'manager', 'of' => ['kind' => 'owner']]]])
            ->says('{people}')->slot('people', new PeopleSlot(self::MOST));
    }

    public static function label(): string
    {
        return 'certain people';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $who = self::shape()->read($context, $node)?->all('people', Who::class) ?? [];
        $context->more('or others', $node->at, Deciders::chooser($context, $node));

        return $who === [] ? null : new self($who);
    }

    public function people(View $view): array
    {
        return array_values(array_filter(array_map(static fn (Who $who): mixed => $who->find($view)->person, $this->who)));
    }

    /** A turn that somebody takes is taken once, and not looked for again. */
    public function followsTree(): bool
    {
        foreach ($this->who as $who) {
            if ($who->route() === null) {
                return false;
            }
        }

        return true;
    }

    public function most(): int
    {
        return count($this->who);
    }
}

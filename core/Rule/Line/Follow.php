<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\Finder;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Toggle;

/** Lets a person follow the record, or follow it no more. */
final readonly class Follow implements FindsPeople, Line
{
    private function __construct(private Who $who, private bool $follows)
    {
    }

    public static function kind(): string
    {
        return 'follow';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('Let {who} {stop} the {}')->orSaid(
            '(let|have|make) {who} follow {}',
            '(make|have) {who} (follow|a follower of|watch) {}',
            '(add|make) {who} (as a follower|a follower|to the followers)[ of {}| on {}]',
            '{who} (follows|should follow|watches|is to follow) {}', 'let {who} watch {}', '(subscribe|add) {who} to {}', 'subscribe {who}',
            'have {who} following {}',
        )->orSaidWith(
            ['stop' => true],
            '(let|have|make) {who} (stop following|unfollow|not follow) {}',
            '(remove|take) {who} (as a follower|from the followers)[ of {}]',
            'unsubscribe {who}[ from {}]', '{who} (no longer follows|stops following|unfollows) {}',
        )->slot('who', new PersonSlot)->slot('stop', new Toggle('stop', 'no longer follow', 'follow'))->slot('', new ItsType);
    }

    public static function label(): string
    {
        return 'Let somebody follow it';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->the('who', Who::class), ! $read->flag('stop'));
    }

    public function perform(ActionContext $performance): void
    {
        $found = Finder::find($this->who, $performance);
        if ($found->person === null) {
            $performance->failed('Following', "nobody was found: {$found->path}");

            return;
        }
        $performance->follow($found->person, $this->follows, $found->path);
    }

    public function people(): array
    {
        return ['who' => $this->who];
    }
}

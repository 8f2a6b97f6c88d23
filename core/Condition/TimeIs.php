<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Row;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\TimeOfDay;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** What time of day it is. The first minute belongs to it and the last does not; from 22:00 to 06:00 goes over midnight. */
final readonly class TimeIs extends OfTheMoment
{
    private const LENGTH = 5;

    public function __construct(private string $from, private string $to, \DateTimeZone $zone, bool $negated, string $text)
    {
        parent::__construct($zone, $negated, $text);
    }

    public static function shapes(): array
    {
        $shape = static fn (Shape $shape): Shape => $shape->slot('from', new TimeOfDay)->slot('to', new TimeOfDay(isEnd: true));

        return [
            $shape(Shape::of('time_is')->says('the time is from {from} to {to}')->orSaid(
                '(it is|the time is|it’s) (between|from) {from} (and|to|until|till) {to}', '(between|from) {from} (and|to|until|till) {to}',
            )),
            $shape(Shape::of('time_is_not')->says('the time is not from {from} to {to}')->orSaid(
                '(it is not|the time is not|it isn’t|not) (between|from) {from} (and|to|until|till) {to}',
                '(it is outside|the time is outside|outside) {from} (and|to|until|till|–|-) {to}',
            )),
        ];
    }

    public static function offers(Context $context, Node $node): array
    {
        return [new Offer('the time of day…', ['kind' => 'time_is', 'from' => '08:00', 'to' => '18:00'], 'The moment')];
    }

    public static function read(Context $context, Node $node, Row $row): ?self
    {
        $negated = $node->kind() === 'time_is_not';
        $context->word('the time', WordRole::Field, $node->child('field')->at, Subjects::chooser($context, $node));
        $kinds = static fn (): array => [new Offer('is', 'time_is'), new Offer('is not', 'time_is_not')];
        $context->choice($negated ? 'is not' : 'is', WordRole::Glue, $node->child('kind')->at, $kinds);
        $ends = [];
        foreach (['from' => 'From which time, such as 08:00', 'to' => 'Until which time, such as 18:00'] as $key => $label) {
            $at = $node->child($key);
            $time = $at->text() ?? '';
            $context->glue($key);
            $editor = Editor::line($label, self::LENGTH);
            if (preg_match($key === 'to' ? '/^(([01]\d|2[0-3]):[0-5]\d|24:00)$/D' : '/^([01]\d|2[0-3]):[0-5]\d$/D', $time) !== 1) {
                return $context->gap('choose a time', $at->at, $editor, 'missing', Words::say('Give a time of day, such as 08:00.'));
            }
            $context->word($time, WordRole::Value, $at->at, $editor);
            $ends[] = $time;
        }
        if ($ends[0] === $ends[1]) {
            return $context->problem($node->child('to')->at, 'out_of_range', Words::say('The time ends later than it begins.'));
        }

        return new self($ends[0], $ends[1], $context->zone, $negated, $row->text());
    }

    protected function isAt(\DateTimeImmutable $at, Closure $calendar): bool
    {
        $time = $at->setTimezone($this->zone)->format('H:i');

        return $this->from < $this->to
            ? $time >= $this->from && $time < $this->to
            : $time >= $this->from || $time < $this->to;
    }
}

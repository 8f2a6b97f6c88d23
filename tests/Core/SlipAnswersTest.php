<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Record\Display;
use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Slip\Answers;
use VividLedger\Slip\BadAnswers;
use VividLedger\Slip\Question;
use VividLedger\Slip\ShownIf;

/** What is answered on a slip: what comes up at all, what has to be answered, how it reads, and which fields it is written to. */
final class SlipAnswersTest extends TestCase
{
    public function test_a_tick_that_is_needed_has_to_be_ticked_and_another_may_be_left(): void
    {
        foreach ([true, false] as $isNeeded) {
            foreach ([[true, true], [false, false], [null, false], ['absent', false]] as [$given, $meant]) {
                $answers = $this->checked([$this->tick($isNeeded)], $given === 'absent' ? [] : [$given]);
                if ($isNeeded && ! $meant) {
                    self::assertSame([0 => 'required'], $answers);
                } else {
                    self::assertInstanceOf(Answers::class, $answers);
                    self::assertSame([$meant], $answers->values);
                    self::assertSame([['asked' => 'Agreed', 'said' => $meant ? 'Yes' : 'No']], $answers->said($this->display()));
                    self::assertSame([], $answers->chosen(), 'lines wait for choices only');
                }
            }
        }
        self::assertSame([0 => 'required'], $this->checked([$this->choice(true)], [null]));
        self::assertSame([0 => 'not_offered'], $this->checked([$this->choice(true)], ['green']));
    }

    public function test_what_hangs_on_an_answer_comes_up_with_it_and_not_without(): void
    {
        $text = new Field('answer', 'Answer', FieldType::Text);
        $why = new Question('Why', $text, isNeeded: true, onlyIf: new ShownIf('Agreed', 'Yes'));
        $open = $this->checked([$this->tick(false), $why], [false, 'Never mind']);
        self::assertInstanceOf(Answers::class, $open);
        self::assertSame([0 => false], $open->values, 'what did not come up is no answer');
        self::assertSame([1 => 'required'], $this->checked([$this->tick(false), $why], [true]));
        $said = $this->checked([$this->tick(false), $why], [true, 'It is late']);
        self::assertInstanceOf(Answers::class, $said);
        self::assertSame([true, 'It is late'], $said->values);

        $when = new Question('When', $text, isNeeded: true, onlyIf: new ShownIf('Colour', 'Dark red'));
        $blue = $this->checked([$this->choice(false), $when], ['blue']);
        self::assertInstanceOf(Answers::class, $blue);
        self::assertSame(['Blue'], $blue->chosen());
        self::assertSame([1 => 'required'], $this->checked([$this->choice(false), $when], ['red']));
    }

    public function test_what_was_answered_is_written_to_its_field_and_what_was_left_open_to_none(): void
    {
        $type = World::schema()->types['ticket'];
        $due = new Question('By when', $type->fields['due'], new Path([], $type->fields['due']));
        $plan = World::schema()->types['customer']->fields['plan'];
        $far = new Question('Which plan', $plan, new Path([$type->fields['customer']], $plan));
        $answers = $this->checked([$due, $far, $this->tick(false)], ['2026-12-24', 'full', true]);
        self::assertInstanceOf(Answers::class, $answers);
        self::assertSame(['' => ['due' => '2026-12-24'], 'customer' => ['plan' => 'full']], $answers->fields());
        self::assertSame(['customer.plan', null], [
            $answers->said($this->display())[1]['path'] ?? null, $answers->said($this->display())[2]['path'] ?? null,
        ]);
        $left = $this->checked([$due, $far], [null, null]);
        self::assertInstanceOf(Answers::class, $left);
        self::assertSame([[], []], [$left->fields(), $left->said($this->display())]);
    }

    private function tick(bool $isNeeded): Question
    {
        return new Question('Agreed', new Field('answer', 'Agreed', FieldType::Tick), isNeeded: $isNeeded);
    }

    private function choice(bool $isNeeded): Question
    {
        $choices = [new Choice('red', 'Dark red'), new Choice('blue', 'Blue')];

        return new Question('Colour', new Field('answer', 'Colour', FieldType::Choice, choices: $choices), isNeeded: $isNeeded);
    }

    /**
     * @param  list<Question>  $questions
     * @param  array<array-key, mixed>  $raw
     * @return Answers|array<int, string> what is wrong, by the place of the question
     */
    private function checked(array $questions, array $raw): Answers|array
    {
        try {
            return Answers::checked($questions, $raw);
        } catch (BadAnswers $bad) {
            return array_map(static fn (array $problem): string => $problem[0], $bad->problems);
        }
    }

    private function display(): Display
    {
        return new Display(new World, new \DateTimeZone('Europe/Berlin'));
    }
}

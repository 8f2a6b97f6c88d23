<?php

declare(strict_types=1);

namespace Tests\App\Writing;

use App\Store\Rules\RuleSchema;
use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Closure;
use Illuminate\Support\Facades\DB;
use Opis\JsonSchema\Validator;
use Tests\App\Support\TimeTestCase;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\Operator\Operand;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Condition\Order;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Rule\Line\Line;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Line\Writes;
use VividLedger\Rule\Line\Written;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Trigger\Opening;
use VividLedger\Rule\Trigger\OpeningKind;
use VividLedger\Rule\Trigger\OwnTrigger;
use VividLedger\Rule\Trigger\Proposal;
use VividLedger\Rule\Trigger\Subject;
use VividLedger\Rule\Trigger\Triggers;
use VividLedger\Rule\Trigger\Watch;
use VividLedger\Rule\Trigger\WatchesFields;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Readable;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\OwnField;

/**
 * A kind is one file: the line, the operator and the trigger at the end of this one are known to no other, and yet they are read,
 * worded, offered, typed, printed, described, performed, rehearsed, remarked on, proposed proofs for and reversed.
 */
final class OneFileTest extends TimeTestCase
{
    private const TEXT = "Rule “Full thousands”\nWhen a Quote climbs in Amount a year\nOnly if Amount a year is about 1000\n"
        ."Fires every time\nRound Amount a year up to whole 100\n";

    protected function setUp(): void
    {
        parent::setUp();
        Kinds::add(Triggers::class, Climbed::class);
        Kinds::add(Operators::class, new About);
        Kinds::add(Lines::class, RoundUp::class);
    }

    protected function tearDown(): void
    {
        Kinds::forget();
        parent::tearDown();
    }

    /** @return array<string, mixed> */
    private static function file(): array
    {
        return [
            'format' => RuleReader::FORMAT, 'name' => 'Full thousands', 'on' => 'quote',
            'when' => ['kind' => 'climbed', 'field' => 'amount'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'about', 'field' => 'amount', 'value' => '1000']]],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'round_up', 'field' => 'amount', 'step' => 100]],
        ];
    }

    public function test_they_are_read_with_problems_at_their_places(): void
    {
        $read = $this->ask('rules/read', ['file' => self::file()]);
        self::assertSame([], $read['problems']);
        self::assertStringContainsString('climbs in Amount a year', $read['aloud']);
        self::assertStringContainsString('Amount a year is about € 1,000.00', $read['aloud']);
        self::assertStringContainsString('round Amount a year up to whole 100', $read['aloud']);
        $wrong = [
            'when' => ['kind' => 'climbed', 'field' => 'subject'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'about', 'field' => 'amount', 'value' => 'much']]],
            'lines' => [['kind' => 'round_up', 'field' => 'stage', 'step' => 0]],
        ];
        self::assertEqualsCanonicalizing(
            ['/when/field', '/onlyIf/of/0/value', '/lines/0/field', '/lines/0/step'],
            array_column($this->ask('rules/read', ['file' => $wrong + self::file()])['problems'], 'at'),
        );
        $more = ['lines' => [['kind' => 'round_up', 'field' => 'amount', 'step' => 10, 'steps' => 10]]] + self::file();
        self::assertSame(['/lines/0/steps'], array_column($this->ask('rules/read', ['file' => $more])['problems'], 'at'));
    }

    public function test_they_are_printed_and_typed_in_several_ways(): void
    {
        self::assertSame(self::TEXT, $this->ask('text/print', ['file' => self::file()])['text']);
        $typed = str_replace(
            ['a Quote climbs in Amount a year', 'is about 1000', 'Round Amount a year up to whole 100'],
            ['the amount a year of a quote goes up', 'is roughly 1000', 'round up Amount a year to the next 100'],
            self::TEXT,
        );
        foreach ([self::TEXT, $typed] as $text) {
            $read = $this->ask('text/rule', ['text' => $text]);
            self::assertSame([], $read['misread'], $text);
            self::assertSame(self::TEXT, $this->ask('text/print', ['file' => $read['file']])['text'], $text);
        }
        $misread = $this->ask('text/rule', ['text' => str_replace('climbs in Amount', 'climbs in Amuont', self::TEXT)])['misread'];
        self::assertStringContainsString('Amount a year', json_encode($misread, JSON_THROW_ON_ERROR));
    }

    public function test_they_are_offered_and_described_for_the_screen(): void
    {
        $offers = fn (string $at, string $by = 'choose'): array => $this->ask(
            'offers',
            ['file' => self::file(), 'at' => $at, 'by' => $by],
        )['offers'];
        $trigger = array_column($offers('/when'), 'value', 'label');
        self::assertSame('climbed', $trigger['climbs in a field']['kind']);
        $operators = array_column($offers('/onlyIf/of/0/kind'), null, 'label');
        self::assertTrue($operators['is about']['isChosen']);
        self::assertContains('Discount', array_column($offers('/lines/0/field'), 'label'));
        self::assertNotContains('Subject', array_column($offers('/lines/0/field'), 'label'));
        $begins = array_column($this->as('ines.okafor', 'GET', 'schema')->assertOk()->json('lines'), 'begins', 'label');
        self::assertSame('round_up', $begins['Round a number up']['kind']);
        $rows = $this->ask('rules/read', ['file' => self::file()])['rows'];
        $words = array_merge(...array_column($rows, 'words'));
        $step = array_values(array_filter($words, static fn (array $word): bool => ($word['at'] ?? '') === '/lines/0/step'))[0];
        self::assertSame(['number', '100'], [$step['editor']['sort'], $step['text']]);
    }

    public function test_they_stand_in_the_schema_of_rule_files(): void
    {
        $schema = json_decode(RuleSchema::made(), false, 512, JSON_THROW_ON_ERROR);
        $fits = static fn (array $file): bool => (new Validator)->validate(
            json_decode((string) json_encode($file), false, 512, JSON_THROW_ON_ERROR),
            $schema,
        )->isValid();
        self::assertTrue($fits(self::file()));
        self::assertFalse($fits(['lines' => [['kind' => 'round_up', 'field' => 'amount', 'step' => 0]]] + self::file()));
        self::assertFalse($fits(['when' => ['kind' => 'climbed']] + self::file()));
    }

    public function test_they_are_performed_explained_and_reversed(): void
    {
        $this->inForce(self::file());
        $quote = $this->quote('900');
        $risen = $this->change($quote, ['amount' => '1010'])['record'];
        self::assertSame('1100.00', $risen['values']['amount']);
        $fallen = $this->change($risen, ['amount' => '950'])['record'];
        self::assertSame('950.00', $fallen['values']['amount'], 'it has not climbed');
        $far = $this->change($fallen, ['amount' => '3010'])['record'];
        self::assertSame('3010.00', $far['values']['amount'], 'it is not about a thousand');
        $why = $this->as('ines.okafor', 'GET', "records/quote/{$quote['id']}/why?rule=".DB::table('rules')->max('id'))->assertOk()->json();
        self::assertStringContainsString('is about € 1,000.00', json_encode($why, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE));
        $near = $this->change($this->change($far, ['amount' => '901'])['record'], ['amount' => '1001'])['record'];
        self::assertSame('1100.00', $near['values']['amount']);
        $fired = (int) DB::table('entries')->where(['kind' => 'fired', 'record_id' => $quote['id']])->max('id');
        $this->ask('reversals', ['entries' => [$fired], 'why' => 'No rounding']);
        self::assertSame('1001.00', $this->as('ines.okafor', 'GET', "records/quote/{$quote['id']}")->json('values.amount'));
        $filter = rawurlencode((string) json_encode(self::file()['onlyIf']));
        $listed = $this->as('ines.okafor', 'GET', "records/quote?filter={$filter}")->assertOk()->json('rows');
        self::assertSame([$quote['id']], array_column($listed, 'id'), 'and it can be asked as a query');
    }

    public function test_they_are_rehearsed_remarked_on_and_proposed_proofs_for(): void
    {
        $quote = $this->quote('900');
        $played = $this->ask('rehearse', ['file' => self::file(), 'record' => ['id' => $quote['id']]]);
        self::assertSame('fires', $played['why']['reason'], json_encode($played['why'], JSON_THROW_ON_ERROR));
        $never = ['onlyIf' => ['kind' => 'all', 'of' => [
            ['kind' => 'about', 'field' => 'amount', 'value' => '1000'], ['kind' => 'over', 'field' => 'amount', 'value' => '2000'],
        ]]];
        $codes = fn (array $file): array => array_column($this->ask('remarks', ['file' => $file]), 'code');
        self::assertSame(['contradiction', 'own_echo'], $codes($never + self::file()));
        self::assertSame(['own_echo'], $codes(self::file()));
        $draft = $this->as('ines.okafor', 'POST', 'rules', ['file' => self::file()])->json('id');
        $cases = array_column($this->ask("rules/{$draft}/proofs/propose", ['file' => self::file()]), 'fires', 'name');
        self::assertSame([false, true, true, false], array_map(
            static fn (string $case): bool => $cases["Amount a year is {$case}"],
            ['€ 899.99', '€ 900.00', '€ 1,100.00', '€ 1,100.01'],
        ));
    }

    /** @return array<string, mixed> */
    private function quote(string $amount): array
    {
        return $this->created('quote', [
            'subject' => 'Ferns', 'stage' => 'draft', 'amount' => $amount, 'customer' => $this->customer()['id'],
            'owner' => $this->person('jonas.pike')->id,
        ])['record'];
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<array-key, mixed>
     */
    private function ask(string $path, array $body): array
    {
        return $this->as('ines.okafor', 'POST', $path, $body)->assertSuccessful()->json();
    }
}

/** A number of the record rises. */
final readonly class Climbed extends OwnTrigger implements WatchesFields
{
    private function __construct(string $type, private Field $field)
    {
        parent::__construct($type);
    }

    public static function kind(): string
    {
        return 'climbed';
    }

    public static function label(): string
    {
        return 'climbs in a field';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->says('{subject} climbs in {field}[, or by hand{byHand}]')
            ->orSaid(
                'the {field} (rises|goes up)[, or by hand{byHand}]',
                '{field} of {subject} (rises|goes up)',
                'the {field} of {subject} (rises|goes up)',
            )
            ->slot('subject', new Subject)->slot('byHand', new Always)->slot('field', new OwnField(
                static fn (Field $field): bool => $field->type->isDecimal(),
                new Gap('choose a number', 'Choose the number that climbs.'),
            ));
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($context->type->name, $read->the('field', Field::class));
    }

    public function watch(): Watch
    {
        return new Watch($this->type, fields: [$this->field->name]);
    }

    public function fields(): array
    {
        return [$this->field->name];
    }

    public function arrival(): null
    {
        return null;
    }

    public function asksNoMore(): bool
    {
        return false;
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        $before = $change->before?->value($this->field->name);
        $after = $change->after?->value($this->field->name);

        return is_string($before) && is_string($after) && BigDecimal::of($after)->isGreaterThan($before);
    }

    public function opening(Proposal $proposal): Opening
    {
        $to = $proposal->set[$this->field->name] ?? $proposal->record->value($this->field->name);

        return new Opening(
            OpeningKind::Changed,
            $proposal->now,
            [$this->field->name => '0.01'],
            [$this->field->name => $to] + $proposal->set,
        );
    }
}

/** A number that is no more than a tenth away from another. */
final class About implements Operator
{
    public function kind(): string
    {
        return 'about';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says('{left} is about {value}')->orSaid('{left} is (roughly|around|near) {value}')
            ->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this));
    }

    public function fits(FieldType $type): bool
    {
        return $type->isDecimal();
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function ofEmpty(): ?bool
    {
        return false;
    }

    public function turns(array $operands): array
    {
        return array_map(static fn (BigDecimal $at): string => (string) $at, self::bounds($operands[0]));
    }

    public function isToldOfOthers(): bool
    {
        return true;
    }

    public function test(Field $field, array $operands): Closure
    {
        [$least, $most] = self::bounds($operands[0]);

        return static fn (string|int|bool|null $value): bool => is_string($value)
            && BigDecimal::of($value)->isGreaterThanOrEqualTo($least) && BigDecimal::of($value)->isLessThanOrEqualTo($most);
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        [$least, $most] = self::bounds(is_object($operands[0]) ? '0' : $operands[0]);

        return $writer->all([
            $writer->compare($left, Order::AtLeast, (string) $least), $writer->compare($left, Order::AtMost, (string) $most),
        ]);
    }

    /** @return array{BigDecimal, BigDecimal} */
    private static function bounds(string|int|bool $value): array
    {
        $whole = BigDecimal::of((string) $value);

        return [$whole->multipliedBy('0.9')->toScale(2), $whole->multipliedBy('1.1')->toScale(2)];
    }
}

/** Rounds a number up to a whole multiple of a step. */
final readonly class RoundUp implements Line, Writes
{
    private function __construct(private Field $field, private int $step)
    {
    }

    public static function kind(): string
    {
        return 'round_up';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['step' => 10])->says('Round {field} up to whole {step}')
            ->orSaid('round up {field} to [the next |full ]{step}')
            ->slot('field', new OwnField(
                static fn (Field $field): bool => $field->type->isDecimal() && $field->formula === null,
                new Gap('choose a number', 'Choose the number to round.'),
            ))->slot('step', new Counted(1, label: 'To whole'));
    }

    public static function label(): string
    {
        return 'Round a number up';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->the('field', Field::class), $read->number('step'));
    }

    public function writes(RecordType $own): array
    {
        return [new Written($own->name, $this->field->name, false, null, true)];
    }

    public function makes(): null
    {
        return null;
    }

    public function perform(ActionContext $performance): void
    {
        $value = $performance->record->value($this->field->name);
        if (is_string($value)) {
            $whole = BigDecimal::of($value)->dividedBy($this->step, 0, RoundingMode::UP)->multipliedBy($this->step);
            $performance->set($this->field, (string) $whole->toScale(2));
        }
    }
}

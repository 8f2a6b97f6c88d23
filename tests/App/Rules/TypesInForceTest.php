<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use Tests\App\Support\AppTestCase;

/** What rules in force mean for a record type is kept, and known anew at once whenever one comes into force, leaves it or changes. */
final class TypesInForceTest extends AppTestCase
{
    public function test_it_is_never_older_than_the_rules(): void
    {
        $said = fn (): array => array_values(collect($this->as('ines.okafor', 'GET', 'schema')->assertOk()->json('types'))
            ->where('name', 'ticket')->map(static fn (array $type): array => [$type['byHand'], $type['kept']])->first());
        self::assertSame([false, []], $said());
        self::assertSame([false, []], $said(), 'and once more, as it was kept');
        $comment = ['on' => 'ticket', 'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'Hello']]];
        $other = $this->inForce(['name' => 'Greet', 'when' => ['kind' => 'created']] + $comment);
        self::assertSame([false, []], $said(), 'a rule that does neither');
        $byHand = $this->inForce(['name' => 'Look', 'when' => ['kind' => 'by_hand']] + $comment);
        self::assertSame([true, []], $said());
        // The rules that people are offered at “Run…” are the same.
        $offered = array_column(array_filter(
            $this->as('ines.okafor', 'GET', 'rules')->json(), static fn (array $rule): bool => $rule['byHand'],
        ), 'id');
        self::assertSame([$byHand], $offered);
        foreach (['paused' => false, 'in_force' => true, 'retired' => false] as $status => $isOffered) {
            $this->as('ines.okafor', 'POST', "rules/{$byHand}/status", ['status' => $status])->assertOk();
            self::assertSame([$isOffered, []], $said(), $status);
        }
        $this->as('ines.okafor', 'POST', "rules/{$other}/status", ['status' => 'paused'])->assertOk();
        $this->inForce(['name' => 'Due', 'when' => ['kind' => 'date', 'field' => 'due', 'amount' => 0, 'unit' => 'day', 'byHand' => true]]
            + $comment);
        self::assertSame([true, []], $said(), 'by its date, or by hand');
        $set = ['kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]]];
        $fills = $this->inForce(['name' => 'Mark', 'when' => ['kind' => 'created'], 'lines' => [$set]] + $comment);
        self::assertSame([true, ['review']], $said(), 'a field that a rule fills in');
        $this->as('ines.okafor', 'POST', "rules/{$fills}/status", ['status' => 'paused'])->assertOk();
        self::assertSame([true, []], $said());
    }
}

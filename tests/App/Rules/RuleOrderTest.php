<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** The order rules answer in, the sets of which only one fires, and copies: each change of it is told and takes effect at once. */
final class RuleOrderTest extends AppTestCase
{
    public function test_what_stands_later_has_the_last_word(): void
    {
        [$low, $high] = [$this->sets('low'), $this->sets('high')];
        self::assertSame('high', $this->ticket()['record']['values']['priority']);

        $answer = $this->as('ines.okafor', 'POST', 'rules/order', ['recordType' => 'ticket', 'rules' => [$high, $low]])->assertOk();
        self::assertSame([$high, $low], array_column($answer->json(), 'id'));
        self::assertSame('low', $this->ticket()['record']['values']['priority']);
        $entry = $this->as('odile.march', 'GET', 'ledger?show=administration')->json('entries.0');
        self::assertSame(
            ['rules_ordered', 'Ines Okafor', ['Sets high', 'Sets low']],
            [$entry['kind'], $entry['who'], $entry['data']['order']],
        );
    }

    public function test_the_same_order_once_more_is_no_entry(): void
    {
        $rules = [$this->sets('low'), $this->sets('high')];
        $before = DB::table('entries')->count();
        $this->as('ines.okafor', 'POST', 'rules/order', ['recordType' => 'ticket', 'rules' => $rules])->assertOk();
        self::assertSame($before, DB::table('entries')->count());
    }

    public function test_an_order_that_leaves_one_out_or_names_one_twice_is_refused(): void
    {
        [$low, $high] = [$this->sets('low'), $this->sets('high')];
        $other = $this->inForce([
            'name' => 'Of customers', 'on' => 'customer', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'comment', 'text' => 'Hello']],
        ]);
        foreach ([[$low], [$low, $low], [$low, $high, $other], [$low, $other], []] as $order) {
            $answer = $this->as('ines.okafor', 'POST', 'rules/order', ['recordType' => 'ticket', 'rules' => $order]);
            self::assertContains($answer->status(), [409, 422], (string) json_encode($order));
        }
        self::assertSame(
            [$low, $high],
            DB::table('rules')->where('record_type', 'ticket')->orderBy('position')->pluck('id')->map(intval(...))->all(),
        );
    }

    public function test_a_rule_leaves_its_set_as_it_came(): void
    {
        [$low, $high] = [$this->sets('low'), $this->sets('high')];
        foreach ([$low, $high] as $rule) {
            $this->as(
                'ines.okafor',
                'POST',
                "rules/{$rule}/either-or",
                ['set' => ' One of them '],
            )->assertOk()->assertJsonPath('eitherOr', 'One of them');
        }
        self::assertSame('low', $this->ticket()['record']['values']['priority'], 'only the first that matches fires');
        $this->as('ines.okafor', 'POST', "rules/{$low}/either-or", ['set' => ''])->assertOk()->assertJsonPath('eitherOr', '');
        self::assertSame('high', $this->ticket()['record']['values']['priority']);

        $told = array_filter(
            $this->as('odile.march', 'GET', 'ledger?show=administration')->json('entries'),
            static fn (array $entry): bool => $entry['kind'] === 'rule_in_set',
        );
        self::assertSame(['', 'One of them', 'One of them'], array_column(array_column($told, 'data'), 'set'));
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', "rules/{$low}/either-or", ['set' => str_repeat('x', 81)]),
            422,
            'invalid_values',
            '/set',
        );
    }

    public function test_a_paused_rule_of_a_set_makes_way(): void
    {
        [$low, $high] = [$this->sets('low'), $this->sets('high')];
        foreach ([$low, $high] as $rule) {
            $this->as('ines.okafor', 'POST', "rules/{$rule}/either-or", ['set' => 'Priority'])->assertOk();
        }
        $this->as('ines.okafor', 'POST', "rules/{$low}/status", ['status' => 'paused'])->assertOk();
        self::assertSame('high', $this->ticket()['record']['values']['priority']);
    }

    public function test_a_copy_is_a_draft_of_its_own(): void
    {
        $rule = $this->sets('low');
        $copy = $this->as('ines.okafor', 'POST', "rules/{$rule}/copy", ['on' => 'ticket'])->assertCreated()->json();
        self::assertSame(['Sets low (copy)', 'draft', []], [$copy['name'], $copy['status'], $copy['reading']['problems']]);
        $again = $this->as('ines.okafor', 'POST', "rules/{$rule}/copy", ['on' => 'ticket'])->assertCreated()->json();
        self::assertNotSame($copy['id'], $again['id']);

        // What does not fit other records is a gap in the draft, never lost or guessed.
        $other = $this->as('ines.okafor', 'POST', "rules/{$rule}/copy", ['on' => 'customer'])->assertCreated()->json();
        self::assertSame('customer', $other['on']);
        self::assertContains('/lines/0/set/0/field', array_column($other['reading']['problems'], 'at'));
        self::assertSame('low', $other['file']['lines'][0]['set'][0]['to']['value']);
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', "rules/{$other['id']}/publish", ['version' => $other['draftVersion']]),
            422,
            'unfinished_rule',
        );
    }

    private function sets(string $priority): int
    {
        return $this->inForce([
            'name' => "Sets {$priority}", 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'priority', 'to' => ['kind' => 'value', 'value' => $priority]]]]],
        ]);
    }
}

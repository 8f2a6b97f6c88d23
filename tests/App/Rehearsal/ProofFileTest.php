<?php

declare(strict_types=1);

namespace Tests\App\Rehearsal;

use App\Evidence\Rehearsal\Proofs;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Proofs that travel with a rule file bring their records along, name people by their handles, and are refused as a whole. */
final class ProofFileTest extends AppTestCase
{
    private const RULE = ['name' => 'Travels', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => [
        'kind' => 'all',
        'of' => [
            ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'],
            ['kind' => 'is', 'field' => 'customer.plan', 'value' => 'full_care'],
        ],
    ], 'fires' => ['kind' => 'becomes_true'],
        'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'manager', 'of' => ['kind' => 'owner']],
            'title' => 'Look at {customer.name}', 'due' => ['amount' => 1, 'unit' => 'day']]]];

    public function test_a_proof_stands_on_its_own_records_wherever_it_comes(): void
    {
        [$rule, $ticket, $customer] = $this->proven();
        $text = (string) $this->as('ines.okafor', 'GET', "rules/{$rule}/file")->getContent();
        $proof = json_decode($text, true)['proofs'][0];
        self::assertSame('bram.castellan', $proof['script']['record']['values']['owner'], 'people go by their handles');
        self::assertSame(
            [['customer', 'Brine & Barrow Hotel']],
            array_map(
                static fn (array $fact): array => [$fact['type'], $fact['values']['name']],
                array_values(array_filter($proof['facts'], static fn (array $fact): bool => $fact['type'] === 'customer')),
            ),
        );
        // Where it comes to, neither the rule nor such a customer is known, and it holds all the same.
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'retired'])->assertOk();
        $this->change(['type' => 'customer', 'id' => $customer, 'version' => 1], ['name' => 'Quayside Clinic', 'plan' => 'basic']);
        $copy = $this->as('ines.okafor', 'POST', 'rules/import', ['text' => $text])->assertCreated()->json('id');
        $this->app->make(Proofs::class)->work(20);
        $proofs = $this->as('ines.okafor', 'GET', "rules/{$copy}/proofs")->assertOk()->json();
        self::assertSame([true, true], [$proofs[0]['holds'], $proofs[0]['checked']]);
        self::assertStringContainsString(
            'task “Look at Brine & Barrow Hotel” to',
            implode("\n", array_column($proofs[0]['lines'], 'text')),
        );
        self::assertGreaterThan(0, $ticket);
    }

    public function test_somebody_whom_nobody_knows_refuses_the_whole_file(): void
    {
        [$rule] = $this->proven();
        // Empty objects stay objects.
        $file = json_decode((string) $this->as('ines.okafor', 'GET', "rules/{$rule}/file")->getContent());
        $file->proofs[0]->script->record->values->owner = 'somebody.else';
        $before = [DB::table('rules')->count(), DB::table('proofs')->count()];
        $this->as(
            'ines.okafor',
            'POST',
            'rules/import',
            ['text' => json_encode($file)],
        )->assertStatus(422)->assertJsonPath('code', 'unknown_person');
        self::assertSame($before, [DB::table('rules')->count(), DB::table('proofs')->count()], 'nothing of it was kept');
        unset($file->proofs[0]->expected);
        $this->as(
            'ines.okafor',
            'POST',
            'rules/import',
            ['text' => json_encode($file)],
        )->assertStatus(422)->assertJsonPath('code', 'malformed_rule');
    }

    public function test_a_proof_breaks_when_the_company_changes_what_it_names(): void
    {
        [$rule] = $this->proven();
        $proofs = $this->app->make(Proofs::class);
        $proofs->work(20);
        self::assertSame(0, $proofs->work(20), 'what was played is not played again until something changes');
        // The owner's manager is another person now: the task would go to them.
        DB::table('people')->where('handle', 'bram.castellan')->update(['manager_id' => $this->person('edda.marlow')->id]);
        DB::table('company')->update(['kept_version' => DB::raw('kept_version + 1')]);
        self::assertSame(1, $proofs->work(20));
        $proof = $this->as('ines.okafor', 'GET', "rules/{$rule}/proofs")->json('0');
        self::assertFalse($proof['holds']);
        self::assertSame(
            1,
            count(array_filter($proof['lines'], static fn (array $line): bool => $line['mark'] === 'new')),
            'one line differs',
        );
        // A paused rule is played as it stands on its page; the rest of the company's rules do not hear of it.
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'paused'])->assertOk();
        self::assertSame(1, $proofs->work(20), 'every change of a rule plays the proofs again');
    }

    public function test_a_field_that_is_gone_or_a_value_that_is_none_says_that_it_cannot_be_played(): void
    {
        [$rule] = $this->proven();
        $script = json_decode((string) DB::table('proofs')->value('script'), true);
        $script['record']['values']['priority'] = 'nowhere';
        DB::table('proofs')->update(['script' => json_encode($script)]);
        $this->app->make(Proofs::class)->work(20);
        $lines = array_column($this->as('ines.okafor', 'GET', "rules/{$rule}/proofs")->json('0.lines'), 'text');
        self::assertStringStartsWith('It can no longer be played: Priority does not offer ‘nowhere’', end($lines));
    }

    public function test_who_may_not_write_rules_reads_proofs_and_keeps_none(): void
    {
        [$rule, $ticket] = $this->proven();
        $this->as('odile.march', 'GET', "rules/{$rule}/proofs")->assertOk();
        $this->as(
            'odile.march',
            'POST',
            "rules/{$rule}/proofs",
            ['name' => 'Mine', 'file' => self::RULE, 'record' => ['id' => $ticket]],
        )->assertForbidden();
        $this->as('odile.march', 'DELETE', 'proofs/'.DB::table('proofs')->value('id'))->assertForbidden();
        $this->as(
            'ines.okafor',
            'POST',
            "rules/{$rule}/proofs",
            ['name' => str_repeat('x', 121), 'file' => self::RULE, 'record' => ['id' => $ticket]],
        )->assertStatus(422)->assertJsonPath('problems.0.at', '/name');
        $this->as('ines.okafor', 'POST', 'proofs/99999/accept')->assertNotFound();
    }

    /** @return array{int, int, int} a rule in force, a ticket and its customer */
    private function proven(): array
    {
        $rule = $this->inForce(self::RULE);
        $customer = $this->customer('Brine & Barrow Hotel', 'full_care')['id'];
        $ticket = $this->ticket(['customer' => $customer, 'priority' => 'normal'])['record']['id'];
        $this->as(
            'ines.okafor',
            'POST',
            "rules/{$rule}/proofs",
            ['name' => 'An urgent ticket', 'file' => self::RULE, 'record' => ['id' => $ticket]],
        )->assertCreated();

        return [$rule, $ticket, $customer];
    }
}

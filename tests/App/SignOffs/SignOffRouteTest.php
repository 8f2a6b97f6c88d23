<?php

declare(strict_types=1);

namespace Tests\App\SignOffs;

use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\SignOffTestCase;

/** Routes that are kept in Setup, moved with a preview, and found by the range an amount lies in. */
final class SignOffRouteTest extends SignOffTestCase
{
    private const ULLA = ['kind' => 'people', 'people' => [['kind' => 'named', 'handle' => 'ulla.verne']]];

    public function test_a_kept_route_is_taken_by_its_name_and_a_change_concerns_new_ones_until_they_are_moved(): void
    {
        $keep = fn (array $body): TestResponse => $this->as('ines.okafor', 'POST', 'routes', $body + [
            'recordType' => 'quote', 'name' => 'Dear quotes', 'steps' => [['who' => self::CLEA]],
        ]);
        $this->assertRefused($keep(['steps' => [['who' => ['kind' => 'people', 'people' => []]]]]), 422, 'unfinished_route');
        $this->assertRefused($keep(['name' => ' ']), 422, 'invalid_values', '/name');
        $this->assertRefused($this->as('jonas.pike', 'POST', 'routes', ['name' => 'x', 'steps' => []]), 403, 'not_allowed');
        $route = $keep([])->assertCreated()->json();
        self::assertSame(['Dear quotes', 0, []], [$route['name'], $route['running'], $route['rules']]);
        $this->assertRefused($keep([]), 409, 'name_taken', '/name');
        $this->inForce(self::asking([['route' => 'Dear quotes'], ['who' => self::ULLA]]));
        $first = $this->quote();
        self::assertSame(['clea.harrow'], $this->asked());
        $change = fn (array $steps): TestResponse => $this->as('ines.okafor', 'PUT', "routes/{$route['id']}", [
            'version' => $this->as('ines.okafor', 'GET', 'routes')->json('0.version'), 'name' => 'Dear quotes', 'steps' => $steps,
        ]);
        $change([['who' => ['kind' => 'people', 'people' => [['kind' => 'named', 'handle' => 'viktor.sand']]]]])->assertOk()
            ->assertJsonPath('running', 1)->assertJsonPath('rules', ['Discounts']);
        self::assertSame(['clea.harrow'], $this->asked(), 'what runs goes on as it began');
        $this->quote(['subject' => 'Moss']);
        self::assertSame(['viktor.sand'], $this->asked());
        $running = $this->as('ines.okafor', 'GET', "routes/{$route['id']}/running")->assertOk()->json();
        self::assertSame([['Ferns', ['Clea Harrow'], ['Viktor Sand']]], array_map(
            static fn (array $one): array => [$one['recordTitle'], $one['now'], $one['then']],
            $running,
        ));
        self::assertSame('waiting', DB::table('sign_off_seats')->orderBy('id')->value('state'), 'a preview changes nothing');
        $this->as('ines.okafor', 'POST', "routes/{$route['id']}/move", ['ids' => [$running[0]['id']]])->assertOk()
            ->assertJsonPath('running', 0);
        self::assertStringContainsString('the route was changed, and the step begins anew', $this->told($first['id']));
        self::assertNotNull($this->say('clea.harrow', 'yes', $running[0]['id']));
        foreach (['viktor.sand', 'ulla.verne'] as $handle) {
            self::assertNull($this->say($handle, 'yes', $running[0]['id']));
        }
        self::assertSame('agreed', DB::table('sign_offs')->where('id', $running[0]['id'])->value('status'));
        $this->assertRefused($this->as('ines.okafor', 'DELETE', "routes/{$route['id']}"), 409, 'in_use');
    }

    public function test_of_thresholds_that_overlap_the_narrowest_is_taken_in_whichever_order_they_stand(): void
    {
        $over = static fn (string $share, array $who): array => self::asking([['who' => $who]], [], [
            'name' => "Over {$share}",
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'over', 'field' => 'discount', 'value' => $share]]],
        ]);
        $rules = [$this->inForce($over('12', self::CLEA)), $this->inForce($over('30', self::ULLA))];
        foreach ($rules as $rule) {
            $this->as('ines.okafor', 'POST', "rules/{$rule}/either-or", ['set' => 'Discounts'])->assertOk();
        }
        foreach ([$rules, array_reverse($rules)] as $place => $order) {
            $this->as('ines.okafor', 'POST', 'rules/order', ['recordType' => 'quote', 'rules' => $order])->assertOk();
            $this->quote(['subject' => "Low {$place}", 'discount' => '20']);
            self::assertSame(['clea.harrow'], $this->asked());
            $high = $this->quote(['subject' => "High {$place}", 'discount' => '35']);
            self::assertSame(['ulla.verne'], $this->asked());
        }
        $entry = DB::table('entries')->where('kind', 'created')->where('record_type', 'quote')
            ->where('record_id', $high['id'])->value('id');
        $answers = $this->as('ines.okafor', 'GET', "ledger/{$entry}/answers")->json();
        self::assertSame(['Over 30' => 'fires', 'Over 12' => 'forestalled'], array_combine(
            array_column($answers, 'name'),
            array_column(array_column($answers, 'verdict'), 'reason'),
        ));
    }

    public function test_what_the_asker_has_to_say_is_asked_of_them(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA]], ['filled' => 'notes', 'why' => '{notes}']));
        $save = fn (array $values): TestResponse => $this->as('jonas.pike', 'POST', 'records/quote', ['values' => $values + [
            'subject' => 'Ferns', 'stage' => 'draft', 'discount' => '20', 'customer' => $this->customer()['id'],
        ]]);
        $refused = $save([]);
        $this->assertRefused($refused, 422, 'refused_by_rule');
        self::assertStringContainsString('Notes has to be filled in: it is what they decide on.', (string) $refused->getContent());
        self::assertSame(0, DB::table('sign_offs')->count());
        $save(['notes' => 'They sign for three years'])->assertCreated();
        self::assertSame('They sign for three years', $this->latest()->why);
    }

    public function test_a_deleted_record_ends_its_sign_off_at_once(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA]]));
        $quote = $this->quote();
        $this->as('jonas.pike', 'DELETE', "records/quote/{$quote['id']}", ['version' => $quote['version']])->assertSuccessful();
        self::assertSame('stopped', $this->latest()->status->value);
        self::assertSame(0, $this->as('clea.harrow', 'GET', 'sign-offs')->json('total'));
    }
}

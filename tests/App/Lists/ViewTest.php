<?php

declare(strict_types=1);

namespace Tests\App\Lists;

use App\Models\People\Person;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\AppTestCase;

/** Lists as people arrange them: columns over references, several sorts, groups, files of what is shown, and views that are kept. */
final class ViewTest extends AppTestCase
{
    /** @var array<string, int> by subject */
    private array $tickets = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->clockAt('2026-11-24T09:00:00Z');
        $hotel = $this->customer('Brine & Barrow Hotel', 'full_care')['id'];
        $clinic = $this->customer('Quayside Clinic', 'basic')['id'];
        foreach ([
            ['Wall', $hotel, 'urgent', '2026-12-01', '10'], ['Gnats', $clinic, 'low', null, '20.50'],
            ['Leaves', $clinic, 'urgent', '2026-11-20', null], ['=Pots', $hotel, 'low', '2026-12-01', '5'],
        ] as [$subject, $customer, $priority, $due, $cost]) {
            $this->tickets[$subject] = $this->ticket([
                'subject' => $subject, 'customer' => $customer, 'priority' => $priority, 'due' => $due, 'cost' => $cost,
            ])['record']['id'];
        }
    }

    public function test_columns_over_references_and_what_a_list_knows_besides(): void
    {
        $this->clockAt('2026-11-25T09:00:00Z');
        $this->as('lena.abara', 'PATCH', "records/ticket/{$this->tickets['Wall']}", ['version' => 1, 'values' => ['status' => 'waiting']])
            ->assertOk();
        $page = $this->list('columns=number,subject,customer.plan,customer.owner.name,@since,gone.away,subject:320')->json();
        self::assertSame(
            ['number', 'subject', 'customer.plan', 'customer.owner.name', '@since', 'subject'], array_column($page['columns'], 'of'),
            'what is not there is left out',
        );
        self::assertSame(['No.', 'Subject', 'Customer › Plan'], array_slice(array_column($page['columns'], 'label'), 0, 3));
        self::assertSame(320, $page['columns'][5]['width']);
        $wall = $this->row($page, 'Wall');
        self::assertSame(['full_care', 'Full care'], [$wall['values']['customer.plan'], $wall['shown']['customer.plan']]);
        self::assertSame('2026-11-25T09:00:00Z', $wall['stageSince']);
        self::assertSame('2026-11-24T09:00:00Z', $this->row($page, 'Gnats')['stageSince']);
        self::assertSame('choice', $page['columns'][2]['field']['type'], 'so that a screen shows it as it shows the customer’s own');
    }

    public function test_sorted_by_several_columns_also_over_references(): void
    {
        self::assertSame(['Leaves', 'Gnats', 'Wall', '=Pots'], $this->order('sort=-customer.name,-due,number'));
        self::assertSame(['Gnats', 'Leaves', 'Wall', '=Pots'], $this->order('sort=due,-cost'));
        self::assertSame(['=Pots', 'Wall', 'Leaves', 'Gnats'], $this->order('sort=-due,cost'));
        $this->clockAt('2026-11-25T09:00:00Z');
        $this->as('lena.abara', 'PATCH', "records/ticket/{$this->tickets['Leaves']}", ['version' => 1, 'values' => ['status' => 'waiting']])
            ->assertOk();
        self::assertSame('Leaves', $this->order('sort=-@since')[0], 'whoever has waited least');
        self::assertSame('Leaves', $this->order('sort=@since')[3]);
        $this->list('sort=nonsense')->assertStatus(422)->assertJsonPath('problems.0.at', '/sort');
        $this->list('sort=@next')->assertStatus(422);
    }

    public function test_groups_with_counts_and_sums_narrowed_like_the_list(): void
    {
        $groups = $this->as('lena.abara', 'GET', 'records/ticket/groups?by=priority&sums=cost')->assertOk()->json();
        self::assertSame([['Low', 2, '€ 25.50'], ['Urgent', 2, '€ 10.00']], array_map(
            static fn (array $group): array => [$group['label'], $group['count'], $group['sums']['cost']], $groups,
        ), 'in the order of the choices');
        $plans = $this->as('lena.abara', 'GET', 'records/ticket/groups?by=customer.plan&search=a')->assertOk()->json();
        self::assertSame([['Basic', 2], ['Full care', 1]], array_map(
            static fn (array $group): array => [$group['label'], $group['count']], $plans,
        ));
        $owners = $this->as('lena.abara', 'GET', 'records/ticket/groups?by=owner')->assertOk()->json();
        self::assertSame(4, array_sum(array_column($owners, 'count')));
        $this->as('lena.abara', 'GET', 'records/ticket/groups?by=nonsense')->assertStatus(422);
    }

    public function test_a_file_of_what_a_view_shows_with_nothing_a_table_program_would_reckon(): void
    {
        $lines = explode("\r\n",
            trim((string) $this->as('ines.okafor', 'GET', 'records/ticket/file?columns=number,subject,customer.plan,due')
                ->assertOk()->streamedContent()));
        self::assertSame("\u{FEFF}No.,Subject,Customer › Plan,Due", $lines[0]);
        self::assertSame(sprintf('T-%04d', $this->tickets['=Pots']).",'=Pots,Full care,2026-12-01", $lines[4]);
    }

    public function test_a_view_is_kept_shared_changed_and_removed(): void
    {
        $definition = [
            'columns' => ['due', 'number', 'customer.plan:140'], 'sort' => ['-due', 'number'], 'group' => 'priority', 'sums' => ['cost'],
            'layout' => 'table', 'filter' => ['kind' => 'is_not', 'field' => 'status', 'value' => 'closed'], 'search' => '',
        ];
        $view = $this->as('lena.abara', 'POST', 'records/ticket/views', [
            'name' => 'Open, by due date', 'shared' => 'nobody', 'definition' => $definition,
        ])->assertCreated()->json();
        self::assertSame($definition, array_intersect_key($view, $definition), 'as it was given');
        self::assertSame([], $this->views('priya.lindqvist'), 'it is hers alone');

        $shared = ['version' => 1, 'name' => 'Open', 'shared' => 'team', 'definition' => $definition];
        $this->as('lena.abara', 'PUT', "views/{$view['id']}", $shared)->assertOk()->assertJsonPath('version', 2);
        $this->as('lena.abara', 'PUT', "views/{$view['id']}", $shared)->assertStatus(409);
        $mate = $this->teamMateOf('lena.abara');
        self::assertSame(['Open'], $this->views($mate));
        $this->as($mate, 'PUT', "views/{$view['id']}", ['version' => 2] + $shared)->assertForbidden();
        $this->as('lena.abara', 'PUT', "views/{$view['id']}", ['version' => 2, 'shared' => 'everybody'] + $shared)->assertForbidden();
        $this->as('ines.okafor', 'DELETE', "views/{$view['id']}")->assertNotFound();
        $this->as('lena.abara', 'DELETE', "views/{$view['id']}")->assertNoContent();
        self::assertSame([], $this->views($mate));
    }

    public function test_a_view_that_names_nothing_is_refused_and_one_whose_field_has_gone_still_shows_the_rest(): void
    {
        $keep = fn (array $definition): TestResponse => $this->as('ines.okafor', 'POST', 'records/ticket/views', [
            'name' => 'Mine', 'shared' => 'everybody', 'definition' => $definition,
        ]);
        $keep(['columns' => ['nonsense']])->assertStatus(422)->assertJsonPath('problems.0.message', 'There is no column ‘nonsense’.');
        $keep(['columns' => [], 'filter' => ['kind' => 'is', 'field' => 'nonsense', 'value' => 1]])->assertStatus(422);
        $keep(['columns' => ['subject', 'topic'], 'sort' => ['topic'], 'group' => 'topic'])->assertCreated();
        $this->as('ines.okafor', 'DELETE', 'types/ticket/fields/topic')->assertSuccessful();
        $view = $this->as('bram.castellan', 'GET', 'records/ticket/views')->assertOk()->json()[0];
        self::assertSame([['subject'], [], null, ['topic']], [$view['columns'], $view['sort'], $view['group'], $view['gone']]);
    }

    private function list(string $query): TestResponse
    {
        return $this->as('lena.abara', 'GET', "records/ticket?{$query}");
    }

    /** @return list<string> the subjects, as the list has them */
    private function order(string $query): array
    {
        return array_map(
            static fn (array $row): string => $row['values']['subject'], $this->list($query)->assertOk()->json('rows'),
        );
    }

    /**
     * @param  array<string, mixed>  $page
     * @return array<string, mixed>
     */
    private function row(array $page, string $subject): array
    {
        return array_values(array_filter($page['rows'], static fn (array $row): bool => $row['values']['subject'] === $subject))[0];
    }

    /** @return list<string> names */
    private function views(string $who): array
    {
        return array_column($this->as($who, 'GET', 'records/ticket/views')->assertOk()->json(), 'name');
    }

    private function teamMateOf(string $who): string
    {
        $team = Person::query()->where('handle', $who)->value('team');

        return (string) Person::query()->where('team', $team)->where('handle', '<>', $who)->where('active', true)
            ->where('role', 'member')->value('handle');
    }
}

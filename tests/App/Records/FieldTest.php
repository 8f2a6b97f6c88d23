<?php

declare(strict_types=1);

namespace Tests\App\Records;

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\Imports;
use Tests\App\Support\OwnDatabase;
use VividLedger\Schema\Numbering;

/** What fields are told to do: begin with something, be the only one, be asked for at a stage, count up, let go of what is deleted. */
final class FieldTest extends AppTestCase
{
    use Imports;
    use OwnDatabase;

    protected function isRolledBack(): bool
    {
        return false;
    }

    protected function setUp(): void
    {
        parent::setUp();
        $this->enterOwnDatabase();
        Artisan::call('company:create', ['name' => 'Boats', 'person' => 'Ines Okafor', 'email' => 'ines@boats.example']);
        foreach ([['Boat', 'Boats'], ['Trip', 'Trips']] as [$label, $plural]) {
            $this->as('ines.okafor', 'POST', 'types', ['label' => $label, 'plural' => $plural])->assertCreated();
        }
        $this->field('trip', ['label' => 'Status', 'type' => 'choice', 'default' => 'open', 'choices' => [
            ['label' => 'Open'], ['label' => 'Done', 'closes' => true],
        ]])->assertCreated();
    }

    protected function tearDown(): void
    {
        $this->leaveOwnDatabase();
        parent::tearDown();
    }

    public function test_a_field_begins_with_something_also_where_a_rule_makes_the_record(): void
    {
        $this->field('trip', ['label' => 'Seats', 'type' => 'number', 'scale' => 0, 'default' => '4', 'required' => true])->assertCreated();
        $this->field('trip', ['label' => 'Guided', 'type' => 'tick', 'default' => 'true'])->assertCreated();
        $this->assertRefused($this->field('trip', ['label' => 'X', 'type' => 'number', 'default' => 'many']), 422, 'invalid_values',
            '/default');
        $this->assertRefused($this->field('trip', ['label' => 'X', 'type' => 'date', 'default' => '2026-01-01']), 422,
            'invalid_values', '/default');
        $this->inForce([
            'name' => 'A boat begins with a trip', 'on' => 'boat', 'when' => ['kind' => 'created'],
            'fires' => ['kind' => 'once_per_record'],
            'lines' => [['kind' => 'create_record', 'type' => 'trip', 'as' => 'first', 'set' => [
                ['field' => 'name', 'to' => ['kind' => 'value', 'value' => 'Maiden']],
                ['field' => 'seats', 'to' => ['kind' => 'value', 'value' => '2']],
            ]]],
        ]);
        $this->created('boat', ['name' => 'Ada'], 'ines.okafor');
        $made = DB::table('records_trip')->where('name', 'Maiden')->first();
        self::assertSame(['2', 1, 'open'], [$made->seats, (int) $made->guided, $made->status]);
        $values = $this->created('trip', ['name' => 'Round', 'guided' => false], 'ines.okafor')['record']['values'];
        self::assertSame(['4', false, 'open'], [$values['seats'], $values['guided'], $values['status']]);
    }

    public function test_no_two_records_have_the_same_whoever_writes_it(): void
    {
        $this->field('boat', ['label' => 'Sign', 'type' => 'text', 'unique' => true])->assertCreated();
        $ada = $this->created('boat', ['name' => 'Ada', 'sign' => 'D-1'], 'ines.okafor')['record'];
        $this->created('boat', ['name' => 'Without'], 'ines.okafor');
        $this->created('boat', ['name' => 'Without as well'], 'ines.okafor');
        $twin = $this->as('ines.okafor', 'POST', 'records/boat', ['values' => ['name' => 'Bo', 'sign' => 'd-1']]);
        $this->assertRefused($twin, 422, 'invalid_values', '/values/sign');
        $this->change($ada, ['name' => 'Ada again', 'sign' => 'D-1'], 'ines.okafor');
        // A rule that writes what another record has undoes the save that set it off, and nobody is the wiser.
        $this->inForce([
            'name' => 'All are D-1', 'on' => 'boat', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'sign', 'to' => ['kind' => 'value', 'value' => 'D-1']]]]],
        ]);
        $before = DB::table('records_boat')->count();
        $this->assertRefused($this->as('ines.okafor', 'POST', 'records/boat', ['values' => ['name' => 'Cy']]), 409, 'invalid_values',
            '/values/sign');
        self::assertSame([$before, 0], [DB::table('records_boat')->count(), DB::table('entries')->where('kind', 'fired')->count()]);
        // What differs already can be told to; what does not, cannot.
        $this->field('boat', ['label' => 'Berth', 'type' => 'text'])->assertCreated();
        DB::table('records_boat')->update(['berth' => 'A']);
        $version = $this->version('boat');
        $this->assertRefused($this->changeField('boat', 'berth', ['version' => $version, 'unique' => true]), 409, 'invalid_values',
            '/unique');
        DB::table('records_boat')->update(['berth' => DB::raw('CONCAT("A", id)')]);
        $this->changeField('boat', 'berth', ['version' => $version, 'unique' => true])->assertNoContent();
        $this->changeField('boat', 'sign', ['version' => $version + 1, 'unique' => false])->assertNoContent();
        $this->created('boat', ['name' => 'Cy'], 'ines.okafor');
        $this->assertRefused($this->field('boat', ['label' => 'X', 'type' => 'tags', 'unique' => true]), 422, 'invalid_values', '/unique');
    }

    public function test_what_two_may_not_have_alike_is_told_by_every_way_and_keeps_nobody_else(): void
    {
        $this->field('boat', ['label' => 'Sign', 'type' => 'text', 'unique' => true])->assertCreated();
        $this->field('boat', ['label' => 'Pier', 'type' => 'text'])->assertCreated();
        [$ada, $bo, $cy] = array_map(fn (string $name): array => $this->created('boat', ['name' => $name], 'ines.okafor')['record'],
            ['Ada', 'Bo', 'Cy']);
        $ada = $this->change($this->change($ada, ['sign' => 'A'], 'ines.okafor')['record'], ['sign' => 'B'], 'ines.okafor')['record'];
        $edit = (int) DB::table('entries')->where('kind', 'changed')->max('id');
        $this->change($bo, ['sign' => 'A'], 'ines.okafor');
        $this->assertRefused($this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$edit]]), 409, 'invalid_values', '/values/sign');
        self::assertSame('B', DB::table('records_boat')->where('id', $ada['id'])->value('sign'));

        // A rule gives all the same: the first has it, the others are told, and nothing of theirs is kept.
        $this->inForce(['name' => 'Same', 'on' => 'boat', 'when' => ['kind' => 'changed', 'fields' => ['pier']], 'fires' => [
            'kind' => 'every_time',
        ], 'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'sign', 'to' => ['kind' => 'value', 'value' => 'C']]]]]]);
        $job = $this->as('ines.okafor', 'POST', 'bulk', [
            'recordType' => 'boat', 'records' => [$ada['id'], $bo['id'], $cy['id']], 'values' => ['pier' => 'North'],
        ])->assertCreated()->json('id');
        $this->work();
        $done = $this->as('ines.okafor', 'GET', "bulk/{$job}")->json();
        self::assertSame(['done', 1, 2], [$done['status'], $done['saved'], $done['refused']]);
        self::assertSame('Sign: another record has it already.', $done['problems'][0]['said']);
        self::assertEquals(['Ada' => 'C', 'Bo' => 'A', 'Cy' => null], DB::table('records_boat')->pluck('sign', 'name')->all());
        self::assertSame(['North'], DB::table('records_boat')->whereNotNull('pier')->pluck('pier')->all());

        // Taken back, what Ada had before is free; once somebody else has it, that is told with the row.
        $this->change($this->as('ines.okafor', 'GET', "records/boat/{$cy['id']}")->json(), ['sign' => 'B'], 'ines.okafor');
        $this->as('ines.okafor', 'POST', "bulk/{$job}/undo")->assertOk();
        $this->work();
        $undone = $this->as('ines.okafor', 'GET', "bulk/{$job}")->json();
        self::assertSame(['undone', 0], [$undone['status'], $undone['undone']]);
        self::assertContains('Sign: another record has it already.', array_column($undone['problems'], 'said'));
        self::assertSame(['C', 'North'], array_values((array) DB::table('records_boat')->where('name', 'Ada')->first(['sign', 'pier'])));
    }

    /** As many fields as there may be, of the widest sort, and rows in which all of them are full. */
    public function test_a_type_takes_as_many_fields_as_it_says(): void
    {
        $kinds = ['text', 'email', 'date', 'text'];
        for ($nth = DB::table('record_types')->where('name',
            'boat')->value(DB::raw('JSON_LENGTH(definition, "$.fields")')); $nth < 180; $nth++) {
            $this->field('boat', ['label' => "Wide {$nth}", 'type' => $kinds[$nth % 4]])->assertCreated();
        }
        $this->assertRefused($this->field('boat', ['label' => 'One more', 'type' => 'text']), 409, 'invalid_values', '/label');
        $full = ['name' => 'Full'];
        foreach ($this->as('ines.okafor', 'GET', 'schema')->json('types') as $type) {
            foreach ($type['name'] === 'boat' ? $type['fields'] : [] as $field) {
                if (str_starts_with($field['name'], 'wide')) {
                    $full[$field['name']] = match ($field['type']) {
                        'date' => '2027-01-01', 'email' => str_repeat('a', 60).'@'.str_repeat('b', 40).'.example',
                        default => str_repeat('ß', 190),
                    };
                }
            }
        }
        $boat = $this->created('boat', $full, 'ines.okafor')['record'];
        self::assertSame(str_repeat('ß', 190), $boat['values']['wide_179']);
        $this->as('ines.okafor', 'GET', 'records/boat?sort=wide_178&columns=name,wide_178')->assertOk();
        $this->as('ines.okafor', 'GET', 'records/boat?search='.str_repeat('ß', 5))->assertOk();
        $type = json_decode((string) DB::table('record_types')->where('name', 'boat')->value('definition'), true);
        $this->changeField('boat', 'wide_179', ['version' => $this->version('boat'), 'unique' => true])->assertNoContent();
        $twin = $this->as('ines.okafor', 'POST', 'records/boat', ['values' => ['name' => 'Twin', 'wide_179' => str_repeat('ß', 190)]]);
        $this->assertRefused($twin, 422, 'invalid_values', '/values/wide_179');
        self::assertCount(180, $type['fields']);
    }

    public function test_a_stage_asks_for_what_it_needs_and_holds_up_nobody_else(): void
    {
        $this->field('trip', ['label' => 'Report', 'type' => 'text', 'requiredAt' => ['done']])->assertCreated();
        $trip = $this->created('trip', ['name' => 'Round'], 'ines.okafor')['record'];
        $patch = fn (array $values): TestResponse => $this->as('ines.okafor', 'PATCH', "records/trip/{$trip['id']}", [
            'version' => DB::table('records_trip')->where('id', $trip['id'])->value('version'), 'values' => $values,
        ]);
        $answer = $patch(['status' => 'done']);
        $this->assertRefused($answer, 422, 'invalid_values', '/values/report');
        self::assertSame('Report has to be filled in when Status is Done.', $answer->json('detail'));
        $patch(['status' => 'done', 'report' => 'All well'])->assertOk();
        $this->assertRefused($patch(['report' => '']), 422, 'invalid_values', '/values/report');
        $patch(['name' => 'Round trip'])->assertOk();
        // What was done before the stage asked for anything is not held up by it.
        DB::table('records_trip')->update(['report' => null]);
        $patch(['name' => 'Round trip again'])->assertOk();
        $this->assertRefused($this->as('ines.okafor', 'POST', 'records/trip', ['values' => ['name' => 'X', 'status' => 'done']]), 422,
            'invalid_values', '/values/report');
    }

    public function test_records_are_numbered_without_a_gap_and_anew_each_year(): void
    {
        $this->field('trip', ['label' => 'Ticket', 'type' => 'text', 'numbering' => 'R-{year}-{000}'])->assertCreated();
        foreach (['R-{0}-{0}', 'R', '{month}-{00}', 'R-{00}-{day}'] as $bad) {
            $this->assertRefused($this->field('trip', ['label' => 'X', 'type' => 'text', 'numbering' => $bad]), 422, 'invalid_values',
                '/numbering');
        }
        $number = fn (string $name): string => $this->created('trip', ['name' => $name], 'ines.okafor')['record']['values']['ticket'];
        self::assertSame(['R-2026-001', 'R-2026-002'], [$number('One'), $number('Two')]);
        $this->as('ines.okafor', 'POST', 'records/trip', ['values' => ['name' => '']])->assertStatus(422);
        $this->assertRefused($this->as('ines.okafor', 'POST', 'records/trip', ['values' => ['name' => 'X', 'ticket' => 'R-1']]), 422,
            'invalid_values',
            '/values/ticket');
        $this->inForce([
            'name' => 'A boat begins with a trip', 'on' => 'boat', 'when' => ['kind' => 'created'],
            'fires' => ['kind' => 'once_per_record'],
            'lines' => [['kind' => 'create_record', 'type' => 'trip', 'as' => 'first', 'set' => [
                ['field' => 'name', 'to' => ['kind' => 'value', 'value' => 'Maiden']],
            ]]],
        ]);
        $this->created('boat', ['name' => 'Ada'], 'ines.okafor');
        self::assertSame('R-2026-003', DB::table('records_trip')->where('name', 'Maiden')->value('ticket'), 'none is left out');
        $this->clockAt('2026-12-31T23:30:00Z');
        self::assertSame('R-2026-004', $number('By the clock of the company, which is UTC'));
        $this->clockAt('2027-01-01T00:30:00Z');
        self::assertSame('R-2027-001', $number('New'));
        self::assertSame('A2027/12-0007', Numbering::of('A{year}/{month}-{0000}')?->number(new \DateTimeImmutable('2027-12-24'), 7));
        self::assertSame('123456', Numbering::of('{000}')?->number(new \DateTimeImmutable('2027-12-24'), 123456));
    }

    public function test_what_refers_to_a_record_that_is_deleted_holds_it_lets_go_or_goes_along(): void
    {
        foreach (['Keeper' => 'refuse', 'Second' => 'clear', 'Mother' => 'along'] as $label => $what) {
            $this->field('trip', ['label' => $label, 'type' => 'reference', 'target' => 'boat', 'onDelete' => $what])->assertCreated();
        }
        $this->assertRefused($this->field('trip', [
            'label' => 'X', 'type' => 'reference', 'target' => 'boat', 'onDelete' => 'clear', 'required' => true,
        ]), 422, 'invalid_values', '/onDelete');
        // A circle: the boat goes with its trip, and the trip with its boat.
        $this->field('boat', ['label' => 'Trip', 'type' => 'reference', 'target' => 'trip', 'onDelete' => 'along'])->assertCreated();
        $boat = $this->created('boat', ['name' => 'Ada'], 'ines.okafor')['record'];
        $held = $this->created('trip', ['name' => 'Held', 'keeper' => $boat['id']], 'ines.okafor')['record'];
        $cleared = $this->created('trip', ['name' => 'Cleared', 'second' => $boat['id']], 'ines.okafor')['record'];
        $along = $this->created('trip', ['name' => 'Along', 'mother' => $boat['id']], 'ines.okafor')['record'];
        $boat = $this->change($boat, ['trip' => $along['id']], 'ines.okafor')['record'];
        $delete = fn (): TestResponse => $this->as('ines.okafor', 'DELETE', "records/boat/{$boat['id']}?version={$boat['version']}");
        $refused = $delete();
        $this->assertRefused($refused, 409, 'referred_to');
        self::assertStringContainsString($held['number'], $refused->json('detail'));
        self::assertSame(3, DB::table('records_trip')->count(), 'all of it, or nothing');
        $this->change($held, ['keeper' => null], 'ines.okafor');
        $delete()->assertOk();
        self::assertSame(0, DB::table('records_boat')->count());
        self::assertEqualsCanonicalizing(['Held', 'Cleared'], DB::table('records_trip')->pluck('name')->all());
        self::assertNull(DB::table('records_trip')->where('id', $cleared['id'])->value('second'));
        self::assertSame(['boat', 'trip'], DB::table('entries')->where('kind', 'deleted')->orderBy('record_type')->pluck('record_type')
            ->all());
    }

    public function test_a_formula_is_reckoned_for_records_there_are_and_what_names_a_field_is_found(): void
    {
        $this->field('trip', ['label' => 'Seats', 'type' => 'number', 'scale' => 0])->assertCreated();
        $trip = $this->created('trip', ['name' => 'Round', 'seats' => '4'], 'ines.okafor')['record'];
        $this->assertRefused($this->field('trip', ['label' => 'X', 'type' => 'number', 'formula' => 'seats +']), 422, 'invalid_values',
            '/formula');
        $this->assertRefused($this->field('trip', ['label' => 'X', 'type' => 'number', 'formula' => 'today()']), 422, 'invalid_values',
            '/formula');
        $this->field('trip', ['label' => 'Twice', 'type' => 'number', 'scale' => 0, 'formula' => 'seats * 2', 'section' => 'Sums'])
            ->assertCreated();
        self::assertSame('8', DB::table('records_trip')->where('id', $trip['id'])->value('twice'));
        self::assertSame('10', $this->change($trip, ['seats' => '5'], 'ines.okafor')['record']['values']['twice']);
        // Points that add up: another formula is reckoned for all there are, too.
        $points = '(seats > 4 ? 10 : 0) + (name == "Round" ? 5 : 0)';
        $version = $this->version('trip');
        $this->assertRefused($this->changeField('trip', 'twice', ['version' => $version, 'formula' => 'seats +']), 422,
            'invalid_values', '/formula');
        $this->changeField('trip', 'twice', ['version' => $version, 'formula' => $points])->assertNoContent();
        self::assertSame('15', DB::table('records_trip')->where('id', $trip['id'])->value('twice'));
        $this->changeField('trip', 'twice', ['version' => $version + 1, 'formula' => 'seats * 2'])->assertNoContent();
        $shape = collect($this->as('ines.okafor', 'GET', 'schema')->json('types.1.fields'))->firstWhere('name', 'twice');
        self::assertSame(['Sums', 'seats * 2'], [$shape['section'], $shape['formula']]);

        $this->inForce([
            'name' => 'Many seats', 'on' => 'trip', 'when' => ['kind' => 'created_or_changed'], 'fires' => ['kind' => 'every_time'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is_filled', 'field' => 'seats']]],
            'lines' => [['kind' => 'comment', 'text' => 'Many']],
        ]);
        $this->as('ines.okafor', 'POST', 'letters',
            ['recordType' => 'trip', 'name' => 'Seats', 'subject' => '{seats} seats', 'body' => '<p>!</p>'])
            ->assertCreated();
        $uses = $this->as('ines.okafor', 'GET', 'types/trip/fields/seats/uses')->assertOk()->json();
        self::assertSame(['rule Many seats', 'letter Seats'], array_map(
            static fn (array $use): string => "{$use['kind']} {$use['name']}", $uses,
        ));
        $this->assertRefused($this->as('ines.okafor', 'DELETE', 'types/trip/fields/seats'), 409, 'in_use');
    }

    /** @param  array<string, mixed>  $given */
    private function field(string $type, array $given): TestResponse
    {
        return $this->as('ines.okafor', 'POST', "types/{$type}/fields", $given);
    }

    /** @param  array<string, mixed>  $given */
    private function changeField(string $type, string $field, array $given): TestResponse
    {
        return $this->as('ines.okafor', 'PATCH', "types/{$type}/fields/{$field}", $given);
    }

    private function version(string $type): int
    {
        return (int) DB::table('record_types')->where('name', $type)->value('version');
    }
}

<?php

declare(strict_types=1);

namespace Tests\App\Types;

use App\Store\Types\SchemaStore;
use App\Store\Types\TypeTable;
use App\Work\Operations\Lane;
use App\Work\Operations\Lanes;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\OwnDatabase;

/** Record types and fields are made and changed while everybody works. */
final class TypeTest extends AppTestCase
{
    use OwnDatabase;

    protected function isRolledBack(): bool
    {
        return false;
    }

    protected function setUp(): void
    {
        parent::setUp();
        $this->enterOwnDatabase();
        Artisan::call('company:create', [
            'name' => 'Boats & Tents', 'person' => 'Ines Okafor', 'email' => 'ines@boats.example', '--set' => ['sales'],
        ]);
        $this->as('ines.okafor', 'POST', 'people', ['name' => 'Lena Abara', 'email' => 'lena@boats.example', 'role' => 'member'])
            ->assertCreated();
    }

    protected function tearDown(): void
    {
        $this->leaveOwnDatabase();
        parent::tearDown();
    }

    public function test_a_type_is_made_with_fields_of_every_kind_and_a_rule_on_it_fires(): void
    {
        $type = $this->type('Select');
        self::assertSame('select', $type, 'a word of SQL is a name like any other');
        $again = $this->as('ines.okafor', 'POST', 'types', ['label' => 'select', 'plural' => 'S']);
        $this->assertRefused($again, 409, 'invalid_values', '/label');
        $this->as('lena.abara', 'POST', 'types', ['label' => 'Mine', 'plural' => 'Mine'])->assertForbidden();
        foreach ([
            ['label' => 'Größe der Palme 🌴', 'type' => 'number', 'scale' => 1, 'min' => '0', 'max' => '30'],
            ['label' => 'Order', 'type' => 'text'], ['label' => 'Id', 'type' => 'text'], ['label' => '你好', 'type' => 'text'],
            ['label' => 'Fee', 'type' => 'money', 'currency' => 'gbp'], ['label' => 'Good', 'type' => 'tick'],
            ['label' => 'State', 'type' => 'choice', 'choices' => [
                ['label' => 'New'], ['label' => 'Done', 'tone' => 'fern', 'closes' => true],
            ]],
            ['label' => 'Parent', 'type' => 'reference', 'target' => 'customer'],
            ['label' => 'Seen', 'type' => 'date_time', 'required' => true],
            ['label' => 'Places', 'type' => 'choices', 'choices' => [['label' => 'A'], ['label' => 'B']]],
        ] as $field) {
            $this->as('ines.okafor', 'POST', "types/{$type}/fields", $field)->assertCreated();
        }
        foreach ([
            '/label' => ['label' => str_repeat('x', 61), 'type' => 'text'], '/type' => ['label' => 'X', 'type' => 'colour'],
            '/target' => ['label' => 'X', 'type' => 'reference', 'target' => 'ghost'], '/choices' => ['label' => 'X', 'type' => 'choice'],
            '/choices/1' => ['label' => 'X', 'type' => 'choice', 'choices' => [['label' => 'A'], ['label' => 'a']]],
            '/max' => ['label' => 'X', 'type' => 'number', 'min' => '3', 'max' => '2'],
            '/currency' => ['label' => 'X', 'type' => 'money', 'currency' => '€'],
        ] as $at => $bad) {
            $this->assertRefused($this->as('ines.okafor', 'POST', "types/{$type}/fields", $bad), 422, 'invalid_values', $at);
        }
        $this->assertRefused($this->field($type, ['label' => 'order', 'type' => 'text']), 409, 'invalid_values', '/label');
        $fields = array_column($this->shape($type)['fields'], 'label', 'name');
        self::assertSame(['Größe der Palme 🌴', 'Order'], [$fields['grosse_der_palme'] ?? '', $fields['order'] ?? '']);
        self::assertArrayNotHasKey('id', $fields);
        $rule = $this->inForce([
            'name' => 'Done', 'on' => $type, 'when' => ['kind' => 'changed', 'fields' => ['state'], 'to' => 'done'],
            'fires' => ['kind' => 'once_per_record'],
            'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'good', 'to' => ['kind' => 'value', 'value' => true]]]]],
        ]);
        $values = ['name' => 'One', 'grosse_der_palme' => '12.5', 'state' => 'new', 'seen' => '2026-11-24T08:00:00Z', 'fee' => '3'];
        $this->assertRefused($this->made($type, ['seen' => null] + $values), 422, 'invalid_values', '/values/seen');
        $this->assertRefused($this->made($type, ['grosse_der_palme' => '31'] + $values), 422, 'invalid_values', '/values/grosse_der_palme');
        $made = $this->made($type, $values)->assertCreated()->json('record');
        self::assertStringStartsWith('S-', $made['number']);
        $saved = $this->change($made, ['state' => 'done'], 'ines.okafor');
        self::assertTrue($saved['record']['values']['good'], 'its rule fires');

        $this->assertRefused($this->as('ines.okafor', 'DELETE', "types/{$type}/fields/good"), 409, 'in_use');
        $this->assertRefused($this->as('ines.okafor', 'DELETE', "types/{$type}/fields/name"), 409, 'in_use');
        $this->as('ines.okafor', 'DELETE', "types/{$type}/fields/fee")->assertNoContent();
        self::assertSame(['Fee'], array_column($this->shape($type)['retired'], 'label'));
        self::assertArrayNotHasKey('fee', $this->as('ines.okafor', 'GET', "records/{$type}/{$made['id']}")->json('values'));
        $this->change($saved['record'], ['order' => 'first'], 'ines.okafor');
        $this->as('ines.okafor', 'POST', "types/{$type}/fields/fee/back")->assertNoContent();
        $shown = $this->as('ines.okafor', 'GET', "records/{$type}/{$made['id']}")->json();
        self::assertSame(['3.00', 'first'], [$shown['values']['fee'], $shown['values']['order']], 'its values are kept');
        self::assertSame(1, $this->firings($rule));
    }

    public function test_words_order_and_choices_change_and_what_is_kept_keeps_its_words(): void
    {
        $type = $this->type('Boat');
        $state = ['label' => 'State', 'type' => 'choice', 'choices' => [['label' => 'New'], ['label' => 'Sunk']]];
        $this->field($type, $state)->assertCreated();
        $made = $this->made($type, ['name' => 'Ark', 'state' => 'sunk'])->assertCreated()->json('record');
        $version = $this->shape($type)['version'];
        $change = fn (int $version, array $set): TestResponse => $this->as(
            'ines.okafor', 'PATCH', "types/{$type}/fields/state", ['version' => $version] + $set,
        );
        $change($version, ['label' => 'How it is', 'choices' => [
            ['label' => 'Fine', 'tone' => 'fern'], ['value' => 'new', 'label' => 'Brand new'],
        ]])->assertNoContent();
        $this->assertRefused($change($version, ['label' => 'Late']), 409, 'stale_version');
        $state = array_column($this->shape($type)['fields'], null, 'name')['state'];
        self::assertSame('How it is', $state['label']);
        self::assertSame(
            [['fine', 'Fine', false], ['new', 'Brand new', false], ['sunk', 'Sunk', true]],
            array_map(static fn (array $choice): array => [$choice['value'], $choice['label'], $choice['isRetired']], $state['choices']),
        );
        self::assertSame('Sunk', $this->as('ines.okafor', 'GET', "records/{$type}/{$made['id']}")->json('shown.state'));
        $this->assertRefused($this->made($type, ['name' => 'Bark', 'state' => 'sunk']), 422, 'invalid_values', '/values/state');
        $made = $this->change($made, ['name' => 'Ark II', 'state' => 'sunk'], 'ines.okafor')['record'];
        $version = $this->shape($type)['version'];
        $this->as('ines.okafor', 'PATCH', "types/{$type}", [
            'version' => $version, 'label' => 'Ship', 'plural' => 'Ships', 'fields' => ['notes', 'state', 'name', 'owner'],
            'columns' => ['state', 'name', 'ghost'],
        ])->assertNoContent();
        $shape = $this->shape($type);
        self::assertSame(['Ships', ['state', 'name'], ['notes', 'state', 'name', 'owner']], [
            $shape['plural'], $shape['columns'], array_slice(array_column($shape['fields'], 'name'), 0, 4),
        ]);
        $told = fn (string $kind): string => (string) $this->as('ines.okafor', 'GET', 'ledger/'.DB::table('entries')->where('kind', $kind)
            ->max('id'))->assertOk()->json('entry.detail');
        self::assertSame("What it is called: State → How it is\nIts choices: New, Sunk → Fine, Brand new, Sunk (retired)",
            $told('field_changed'));
        self::assertSame("The order of the fields changed\nWhat it is called: Boat → Ship\nWhat several are called: Boats → Ships\n"
            .'What lists show: name, owner, updated_at → state, name', $told('type_changed'));
        $kinds = DB::table('entries')->where('data', 'like', "%\"type\":\"{$type}\"%")->orderBy('id')->pluck('kind')->all();
        self::assertSame(['type_added', 'field_added', 'field_changed', 'type_changed'], $kinds);
    }

    public function test_nothing_odd_makes_it_fail_or_leaves_half_a_field(): void
    {
        $type = $this->type('Odd');
        $odd = [
            null, true, 0, 1.5, '', ' ', 'id', "a\0b", '🌿', '../../etc', "'; DROP TABLE people; --", '`x`', [], [[]], ['a' => 'b'],
            'select', str_repeat('ä', 60), 'Größe', '1st', '-', '__', 'a.b',
        ];
        foreach ($odd as $nth => $value) {
            foreach (['label', 'type', 'target', 'currency', 'scale', 'min', 'choices', 'help'] as $member) {
                $given = [$member => $value] + ['label' => "F{$nth} {$member}", 'type' => $member === 'choices' ? 'choice' : 'money'];
                $status = $this->field($type, $given)->status();
                self::assertTrue($status === 201 || ($status >= 400 && $status < 500), "{$status}: ".json_encode($given));
            }
            $status = $this->as('ines.okafor', 'POST', 'types', ['label' => $value, 'plural' => 'Odd ones'])->status();
            self::assertTrue($status === 201 || ($status >= 400 && $status < 500), "{$status}: ".json_encode($value));
        }
        foreach ($this->as('ines.okafor', 'GET', 'schema')->json('types') as $shape) {
            $columns = array_column(DB::select("SHOW COLUMNS FROM `records_{$shape['name']}`"), 'Field');
            self::assertSame([], array_diff(array_column($shape['fields'], 'name'), $columns), $shape['name']);
        }
        $this->made($type, ['name' => 'It works'])->assertCreated();
    }

    public function test_what_a_crash_left_behind_is_in_nobodys_way(): void
    {
        $type = $this->type('Raft');
        $added = fn (): TestResponse => $this->field($type, ['label' => 'Mast', 'type' => 'text']);
        // The column was there, and the machine went down before anybody knew of it.
        $kept = DB::table('record_types')->where('name', $type)->value('definition');
        $added()->assertCreated()->assertJson(['name' => 'mast']);
        DB::table('record_types')->where('name', $type)->update(['definition' => $kept]);
        $this->forgetEverything();
        $added()->assertCreated()->assertJson(['name' => 'mast_2']);
        $this->made($type, ['name' => 'Kon', 'mast_2' => 'Oak'])->assertCreated();

        DB::table('record_types')->where('name', $this->type('Wreck'))->delete();
        $this->forgetEverything();
        self::assertSame('wreck', $this->type('Wreck'));
        $this->made('wreck', ['name' => 'Afloat'])->assertCreated()->assertJson(['record' => ['id' => 1]]);

        // Where the last step fails, none of them has been done.
        $before = [DB::table('company')->value('schema_version'), $this->shape($type)];
        DB::statement('CREATE TRIGGER no_more BEFORE INSERT ON entries FOR EACH ROW SIGNAL SQLSTATE "45000"');
        $sunk = ['version' => $before[1]['version'], 'label' => 'Sunk'];
        self::assertSame(500, $this->as('ines.okafor', 'PATCH', "types/{$type}", $sunk)->status());
        DB::statement('DROP TRIGGER no_more');
        $this->forgetEverything();
        self::assertSame($before, [DB::table('company')->value('schema_version'), $this->shape($type)]);
    }

    /** A worker that has been at it for days knows a new field at its next look. */
    public function test_a_worker_learns_of_a_new_field(): void
    {
        $type = $this->type('Tent');
        $lanes = $this->app->make(Lanes::class);
        $lanes->work(Lane::Lines);
        $known = $this->app->make(SchemaStore::class)->schema();
        self::assertNull($known->type($type)?->field('colour'));
        $name = DB::table('record_types')->where('name', $type)->value('definition');
        $definition = json_decode((string) $name, true);
        $definition['fields']['colour'] = ['label' => 'Colour', 'type' => 'text'];
        // Somewhere else, in another process.
        TypeTable::addColumn(DB::connection(), $type, 'colour', $definition['fields']['colour']);
        DB::table('record_types')->where('name', $type)->update(['definition' => json_encode($definition)]);
        DB::table('company')->increment('schema_version');
        $lanes->work(Lane::Lines);
        self::assertNotNull($this->app->make(SchemaStore::class)->schema()->type($type)?->field('colour'));
    }

    private function type(string $label): string
    {
        $name = $this->as('ines.okafor', 'POST', 'types', ['label' => $label, 'plural' => "{$label}s"])->assertCreated()->json('name');
        $this->forgetEverything();

        return $name;
    }

    /** @param  array<string, mixed>  $field */
    private function field(string $type, array $field): TestResponse
    {
        return $this->as('ines.okafor', 'POST', "types/{$type}/fields", $field);
    }

    /** @param  array<string, mixed>  $values */
    private function made(string $type, array $values): TestResponse
    {
        return $this->as('ines.okafor', 'POST', "records/{$type}", ['values' => $values]);
    }

    /** @return array<string, mixed> */
    private function shape(string $type): array
    {
        return array_column($this->as('ines.okafor', 'GET', 'schema')->assertOk()->json('types'), null, 'name')[$type];
    }
}

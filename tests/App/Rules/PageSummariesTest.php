<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use App\Models\Library\StoredLetter;
use App\Models\People\Person;
use Tests\App\Support\AppTestCase;

/** What a list of rules says of each is kept, and is never older than what the rules name: fields, people, letters, and the language. */
final class PageSummariesTest extends AppTestCase
{
    public function test_a_list_of_rules_reads_as_the_rules_do(): void
    {
        $letter = $this->as('ines.okafor', 'POST', 'letters', [
            'recordType' => 'ticket', 'name' => 'Hello', 'subject' => 'Hello', 'body' => '<p>Hello</p>',
        ])->assertCreated()->json('id');
        $rule = $this->inForce([
            'name' => 'Names much', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]]],
                ['kind' => 'give_task', 'to' => ['kind' => 'named', 'handle' => 'viktor.sand'], 'title' => 'Look'],
                ['kind' => 'send_message', 'channel' => 'app', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]],
                    'letter' => 'Hello'],
            ],
        ]);
        $this->same($rule, 'set Review to Needed', 'Viktor Sand');
        $this->same($rule, 'set Review to Needed', 'Viktor Sand');

        $types = collect($this->as('ines.okafor', 'GET', 'schema')->json('types'));
        $this->as('ines.okafor', 'PATCH', 'types/ticket/fields/review', [
            'version' => $types->firstWhere('name', 'ticket')['version'], 'label' => 'Second look',
        ])->assertNoContent();
        $this->same($rule, 'set Second look to Needed', 'Viktor Sand');

        Person::query()->where('handle', 'viktor.sand')->firstOrFail()->update(['name' => 'Viktor Strand']);
        $this->same($rule, 'set Second look to Needed', 'Viktor Strand');

        $this->as('ines.okafor', 'PUT', 'language', ['language' => 'de'])->assertOk();
        $this->same($rule, 'Viktor Strand');
        $this->as('ines.okafor', 'PUT', 'language', ['language' => null])->assertOk();
        $this->same($rule, 'set Second look to Needed');

        StoredLetter::query()->findOrFail($letter)->delete();
        self::assertNotNull($this->listed($rule)['broken'], 'a letter that is gone');
    }

    public function test_titles_of_records_and_teams_change_without_a_rule(): void
    {
        $hotel = $this->customer();
        $rule = $this->inForce([
            'name' => 'Names a record', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'customer', 'value' => $hotel['number']]]],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'named', 'handle' => 'viktor.sand'], 'title' => 'Look']],
        ]);
        $this->same($rule, 'Customer is '.$hotel['values']['name']);
        $this->as('ines.okafor', 'PATCH', "records/customer/{$hotel['id']}", [
            'version' => $hotel['version'], 'values' => ['name' => 'Another Hotel'],
        ])->assertOk();
        $this->same($rule, 'Customer is Another Hotel');

        Person::query()->where('handle', 'viktor.sand')->firstOrFail()->update(['team' => 'Lanterns']);
        $ofTeam = $this->inForce([
            'name' => 'Names a team', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'in_team', 'field' => 'owner', 'value' => 'Lanterns']]],
            'lines' => [['kind' => 'comment', 'text' => 'Look']],
        ]);
        $this->same($ofTeam, 'Lanterns');
        Person::query()->where('handle', 'viktor.sand')->firstOrFail()->update(['team' => 'Service']);
        self::assertNotNull($this->listed($ofTeam)['broken'], 'a team that nobody is in any more');
    }

    /** The list says what the page of the rule says, and each of these. */
    private function same(int $rule, string ...$said): void
    {
        $listed = $this->listed($rule);
        self::assertNull($listed['broken']);
        // As another process reads it, which remembers nothing of before.
        $this->flushControllers();
        self::assertSame($this->as('ines.okafor', 'GET', "rules/{$rule}")->assertOk()->json('reading.aloud'), $listed['aloud']);
        foreach ($said as $one) {
            self::assertStringContainsString($one, $listed['aloud']);
        }
    }

    /** @return array{id: int, aloud: string, broken: ?string} */
    private function listed(int $rule): array
    {
        return collect($this->as('ines.okafor', 'GET', 'rules')->assertOk()->json())->firstWhere('id', $rule);
    }
}

<?php

declare(strict_types=1);

namespace Tests\App\Access;

use App\Models\Access\StoredRole;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;

/** Roles made in Setup: what they refuse, what follows at once, what the ledger keeps, and why somebody may or may not. */
final class RoleTest extends AppTestCase
{
    public function test_a_role_is_made_given_changed_and_removed_and_the_ledger_says_what_changed(): void
    {
        $ines = fn (string $method, string $path, array $body = []) => $this->as('ines.okafor', $method, $path, $body);
        $role = $ines('POST', 'roles', ['file' => RightsWalkTest::DESK])->assertCreated()->json();
        self::assertSame(['desk', 1, 0, false], [$role['name'], $role['version'], $role['people'], $role['isFixed']]);
        $this->assertRefused($ines('POST', 'roles', ['file' => RightsWalkTest::DESK]), 409, 'invalid_values', '/label');
        $lena = $this->person('lena.abara')->id;
        $ines('PATCH', "people/{$lena}", ['role' => 'desk'])->assertOk();
        $this->assertRefused($ines('DELETE', 'roles/desk'), 409, 'in_use');
        $this->assertRefused($ines('PATCH', "people/{$lena}", ['role' => 'nobody-has-this']), 422, 'invalid_request', '/role');

        $ticket = $this
            ->created('ticket',
                ['subject' => 'Fern', 'priority' => 'normal', 'status' => 'open', 'owner' => $lena, 'customer' => $this->customer()['id'],
                ])['record'];
        $delete = fn () => $this->as('lena.abara', 'DELETE', "records/ticket/{$ticket['id']}?version={$ticket['version']}");
        $delete()->assertForbidden()->assertJsonPath('detail', 'As Desk you do not delete tickets.');
        $file = RightsWalkTest::DESK;
        $file['reaches']['ticket']['delete'] = 'own';
        $said = $ines('POST', 'roles/desk/difference', ['file' => $file])->assertOk()->json('said');
        self::assertSame(['Tickets: Delete – their own instead of nobody’s.'], $said);
        $ines('PUT', 'roles/desk', ['version' => 1, 'file' => $file])->assertOk()->assertJsonPath('version', 2);
        $this->assertRefused($ines('PUT', 'roles/desk', ['version' => 1, 'file' => $file]), 409, 'stale_version');
        $delete()->assertOk();

        $entry = DB::table('entries')->where('kind', 'role_changed')->sole();
        $shown = $ines('GET', "ledger/{$entry->id}")->assertOk();
        self::assertSame('Tickets: Delete – their own instead of nobody’s.', $shown->json('entry.detail'));
        $ines('PATCH', "people/{$lena}", ['role' => 'member'])->assertOk();
        $ines('DELETE', 'roles/desk')->assertNoContent();
        self::assertNull(StoredRole::query()->find('desk'));
        $this->assertRefused($ines('DELETE', 'roles/administrator'), 409, 'not_possible');
    }

    /** @return iterable<string, array{array<string, mixed>, string, string}> */
    public static function faults(): iterable
    {
        $sound = ['label' => 'Odd', 'duties' => [], 'reaches' => ['*' => ['read' => 'all']], 'fields' => []];
        yield 'no name' => [['label' => ' '] + $sound, '/label', 'invalid_value'];
        yield 'something else' => [$sound + ['colour' => 'red'], '/colour', 'unknown_member'];
        yield 'no list' => [['duties' => 'all'] + $sound, '/duties', 'invalid_value'];
        yield 'no such duty' => [['duties' => ['fly']] + $sound, '/duties/0', 'unknown_value'];
        yield 'no such type' => [['reaches' => ['dragon' => []]] + $sound, '/reaches/dragon', 'unknown_type'];
        yield 'no such act' => [['reaches' => ['ticket' => ['eat' => 'own']]] + $sound, '/reaches/ticket/eat', 'unknown_value'];
        yield 'no such reach' => [['reaches' => ['ticket' => ['read' => 'most']]] + $sound, '/reaches/ticket/read', 'unknown_value'];
        yield 'acts on what is not seen' => [
            ['reaches' => ['ticket' => ['read' => 'own', 'change' => 'team']]] + $sound, '/reaches/ticket/change', 'beyond_sight',
        ];
        yield 'a team is not everybody below' => [
            ['reaches' => ['ticket' => ['read' => 'team', 'change' => 'subtree']]] + $sound, '/reaches/ticket/change', 'beyond_sight',
        ];
        yield 'writes rules and does not see all' => [
            ['duties' => ['write_rules'], 'reaches' => ['ticket' => ['read' => 'own']]] + $sound, '/duties/0', 'needs_all',
        ];
        yield 'hides the title' => [['fields' => ['ticket' => ['subject' => 'hidden']]] + $sound, '/fields/ticket/subject', 'not_possible'];
        yield 'hides the owner' => [['fields' => ['ticket' => ['owner' => 'hidden']]] + $sound, '/fields/ticket/owner', 'not_possible'];
        yield 'no such field' => [['fields' => ['ticket' => ['wings' => 'hidden']]] + $sound, '/fields/ticket/wings', 'unknown_value'];
        yield 'asks for what it hides' => [
            ['reaches' => ['*' => ['read' => 'all', 'create' => 'all']], 'fields' => ['ticket' => ['status' => 'hidden']]] + $sound,
            '/fields/ticket/status', 'not_possible',
        ];
    }

    /** @param  array<string, mixed>  $file */
    #[DataProvider('faults')]
    public function test_a_role_that_does_not_go_together_is_refused_where_it_does_not(array $file, string $at, string $code): void
    {
        $answer = $this->as('ines.okafor', 'POST', 'roles', ['file' => $file]);
        $this->assertRefused($answer, 422, 'invalid_values', $at);
        self::assertContains($code, array_column($answer->json('problems'), 'code'));
        self::assertSame(4, StoredRole::query()->count());
    }

    public function test_why_somebody_may_or_may_not_is_said_in_sentences(): void
    {
        StoredRole::query()->create(['name' => 'desk', 'position' => 9, 'version' => 1, 'file' => RightsWalkTest::DESK]);
        $lena = $this->person('lena.abara');
        $lena->update(['role' => 'desk']);
        $ids = [];
        $customer = $this->customer()['id'];
        foreach (['bram.castellan', 'lena.abara', 'teo.marsh', null] as $owner) {
            $ids[] = $this->created('ticket', [
                'subject' => 'Fern', 'priority' => 'normal', 'status' => 'open', 'customer' => $customer,
                'owner' => $owner === null ? null : $this->person($owner)->id,
            ], $owner === 'lena.abara' ? 'bram.castellan' : ($owner ?? 'lena.abara'))['record']['id'];
        }
        $why = fn (int $ticket, string $act): array => (array) collect(
            $this->as('ines.okafor', 'GET', "people/{$lena->id}/may/ticket/{$ticket}")->assertOk()->json(),
        )->firstWhere('act', $act);
        $expected = [
            [$ids[0], 'read', true,
                'Desk has this right for tickets that are their team’s, and this one is Bram Castellan’s, who is in Service '
                .'Quayside too.'],
            [$ids[0], 'change', false,
                'Desk has this right for tickets that are their own, and this one is Bram Castellan’s, who is somebody '
                .'else.'],
            [$ids[1], 'change', true, 'Desk has this right for tickets that are their own, and this one is theirs.'],
            [$ids[2], 'read', false, 'Desk has this right for tickets that are their team’s, and this one is Teo Marsh’s, who is in Sales '
                .'Birchmoor, not in Service Quayside.'],
            [$ids[3], 'read', true,
                'Desk has this right for tickets that are their team’s, and this one has no owner and was made by them.'],
            [$ids[1], 'delete', false, 'Desk has this right for nobody’s tickets.'],
        ];
        foreach ($expected as [$ticket, $act, $may, $sentence]) {
            self::assertSame([$may, $sentence], [$why($ticket, $act)['may'], $why($ticket, $act)['why']]);
        }
        $all = $this->as('ines.okafor', 'GET', "people/{$lena->id}/may")->assertOk();
        $tickets = (array) collect($all->json('types'))->firstWhere('type', 'ticket');
        self::assertSame([3, DB::table('records_ticket')->count(), ['Review']], [$tickets['seen'], $tickets['all'], $tickets['readOnly']]);
        self::assertContains('Bram Castellan', $all->json('team'));
    }

    public function test_what_a_record_out_of_sight_leaves_on_one_in_sight_is_not_told_there(): void
    {
        StoredRole::query()->create(['name' => 'desk', 'position' => 9, 'version' => 1, 'file' => array_replace_recursive(
            RightsWalkTest::DESK,
            ['reaches' => ['contact' => ['read' => 'all']]],
        )]);
        $this->person('lena.abara')->update(['role' => 'desk']);
        $customer = $this->customer()['id'];
        $contact = $this->created('contact', [
            'name' => 'Marit Solheim', 'email' => 'marit@brine.example', 'customer' => $customer, 'may_write' => true,
        ])['record']['id'];
        $this->inForce([
            'name' => 'Tell the contact', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'About {subject}',
                    'body' => '<p>!</p>'],
            ],
        ]);
        foreach (['teo.marsh' => 'Far away', 'lena.abara' => 'Near by'] as $owner => $subject) {
            $this->created('ticket', [
                'subject' => $subject, 'priority' => 'normal', 'status' => 'open', 'customer' => $customer, 'contact' => $contact,
                'owner' => $this->person($owner)->id,
            ]);
        }
        foreach (['account', 'messages', 'tasks', 'beside'] as $leaf) {
            $all = (string) $this->as('ines.okafor', 'GET', "records/contact/{$contact}/{$leaf}")->assertOk()->getContent();
            $seen = (string) $this->as('lena.abara', 'GET', "records/contact/{$contact}/{$leaf}")->assertOk()->getContent();
            self::assertSame(str_contains($all, 'Near by'), str_contains($seen, 'Near by'), $leaf);
            self::assertSame(in_array($leaf, ['account', 'messages'], true), str_contains($all, 'Far away'), $leaf);
            self::assertStringNotContainsString('Far away', $seen, $leaf);
        }
        // Nor by being slower than somebody who changed what is kept from them.
        $mine = $this->created('customer', ['name' => 'Fjord', 'owner' => $this->person('lena.abara')->id, 'yearly_value' => 1])['record'];
        $this->change($mine, ['yearly_value' => 777123, 'name' => 'Fjord Two']);
        StoredRole::query()->find('desk')?->update(['file' => array_replace_recursive(
            RightsWalkTest::DESK,
            ['reaches' => ['customer' => ['change' => 'own']]],
        )]);
        $late = $this->as('lena.abara', 'PATCH', "records/customer/{$mine['id']}", ['version' => 1, 'values' => ['name' => 'Fjord Three']]);
        $this->assertRefused($late, 409, 'stale_version');
        self::assertStringNotContainsString('777', (string) $late->getContent());
        $offers = $this->as('lena.abara', 'POST', 'offers', [
            'file' => ['filter' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'name', 'value' => 'x']]]], 'on' => 'customer',
            'at' => '/filter/of/0/field', 'by' => 'choose',
        ])->assertOk();
        self::assertStringContainsString('"Plan"', (string) $offers->getContent());
        self::assertStringNotContainsString('Yearly', (string) $offers->getContent());
    }

    public function test_what_cannot_be_written_is_refused_at_its_place_and_what_is_hidden_is_not_told(): void
    {
        StoredRole::query()->create(['name' => 'desk', 'position' => 9, 'version' => 1, 'file' => RightsWalkTest::DESK]);
        $lena = $this->person('lena.abara');
        $lena->update(['role' => 'desk']);
        $customer = $this->created('customer', ['name' => 'Fjord', 'owner' => $lena->id, 'yearly_value' => 777123])['record'];
        $ticket = $this->created('ticket', [
            'subject' => 'Fern', 'priority' => 'normal', 'status' => 'open', 'owner' => $lena->id, 'customer' => $customer['id'],
        ])['record'];
        $this->change($customer, ['yearly_value' => 888456, 'plan' => 'care']);
        $this->assertRefused($this->as('lena.abara', 'PATCH', "records/ticket/{$ticket['id']}", [
            'version' => 1, 'values' => ['review' => 'needed', 'subject' => 'Other'],
        ]), 422, 'invalid_values', '/values/review');
        $answers = $this->as('lena.abara', 'POST', 'records/ticket/several', ['records' => [
            ['id' => $ticket['id'], 'version' => 1, 'values' => ['review' => 'needed']],
            ['values' => ['subject' => 'For Teo', 'priority' => 'normal', 'status' => 'open', 'customer' => $customer['id'],
                'owner' => $this->person('teo.marsh')->id]],
            ['values' => ['subject' => 'Mine', 'priority' => 'normal', 'status' => 'open', 'customer' => $customer['id'],
                'owner' => 'lena.abara']],
        ]])->assertOk()->json();
        self::assertSame(['refused', 'refused', 'created'], array_column($answers, 'result'));
        foreach (["records/customer/{$customer['id']}", "records/customer/{$customer['id']}/account", 'find?text=Fjord',
            "records/ticket/{$ticket['id']}", 'records/customer'] as $path) {
            $said = (string) $this->as('lena.abara', 'GET', $path)->assertOk()->getContent();
            foreach (['777123', '888456', '777,123', '888,456', 'yearly_value'] as $kept) {
                self::assertStringNotContainsString($kept, $said, $path);
            }
        }
        self::assertStringContainsString('"plan"', (string) $this->as('lena.abara', 'GET', "records/customer/{$customer['id']}/account")
            ->getContent(), 'the rest of the same entry is there');
        $entry = (int) DB::table('entries')->where('record_type', 'customer')->where('kind', 'created')->max('id');
        self::assertSame([], $this->as('lena.abara', 'GET', "ledger/{$entry}/answers")->assertOk()->json());
    }
}

<script lang="ts">
    import Broken from '../../parts/Broken.svelte';
    import { createInfiniteQuery } from '@tanstack/svelte-query';
    import type { Resources } from '../../api/client';
    import EntryRow from '../../parts/EntryRow.svelte';
    import { historyOf } from './history';
    import PencilledLine from '../../parts/PencilledLine.svelte';
    import BesideLeaf from './BesideLeaf.svelte';
    import CommentBox from './CommentBox.svelte';
    import MessagesLeaf from './MessagesLeaf.svelte';
    import RelatedLeaf from './RelatedLeaf.svelte';
    import SignOffOfRecord from '../signoffs/SignOffOfRecord.svelte';
    import SlipOfRecord from '../slips/SlipOfRecord.svelte';
    import { moment } from '../../state/moments';
    import { clock } from '../../state/session.svelte';

    type Props = {
        type: Resources['TypeResource'];
        record: Resources['RecordResource'];
        may: boolean;
        signOffs?: Resources['SignOffResource'][];
        slips?: Resources['SlipResource'][];
    };
    let { type, record, may, signOffs = [], slips = [] }: Props = $props();
    const id = $derived(record.id);
    const out = $derived(slips.filter((one) => one.status === 'waiting'));
    const waiting = $derived(signOffs.filter((one) => one.status === 'waiting'));
    const shows: Record<string, { label: string; kinds: string[] | null }> = {
        all: { label: 'All', kinds: null },
        rules: {
            label: 'Rules',
            kinds: [
                'fired',
                'line',
                'struck',
                'retimed',
                'postponed',
                'too_late',
                'line_failed',
                'held',
                'resumed',
                'reversed',
                'stopped',
                'refused',
                'ready_again',
                'unsure',
                'sign_off',
                'slip',
                'signed_off',
                'held_back',
                'waits_for_release',
                'lock_released',
            ],
        },
        tasks: { label: 'Tasks', kinds: ['task_done', 'task_given', 'task_reopened', 'task_due', 'task_changed', 'task_lapsed'] },
        edits: { label: 'Edits', kinds: ['created', 'changed', 'deleted', 'restored', 'merged', 'comment', 'file', 'reply'] },
    };
    let show = $state('all');
    let leaf = $state<'account' | 'messages' | 'related' | 'beside'>('account');
    const account = createInfiniteQuery(() => ({ ...historyOf(type.name, id), refetchInterval: 15_000 }));
    const lines = $derived(
        show === 'edits'
            ? []
            : (account.data?.pages[0]?.ahead ?? []).filter((line) => show === 'all' || (line.kind === 'task_due') === (show === 'tasks')),
    );
    const entries = $derived(
        (account.data?.pages ?? [])
            .flatMap((page) => page.entries)
            .filter((entry) => shows[show]?.kinds === null || shows[show]?.kinds?.includes(entry.kind)),
    );
</script>

<section class="leaf right" aria-label="History" style="--margin-at: 118px">
    <header class="flex flex-wrap items-center justify-between gap-x-3 gap-y-2">
        <div class="segments" role="group" aria-label="Leaf">
            <button type="button" aria-pressed={leaf === 'account'} onclick={() => (leaf = 'account')}>History</button>
            <button type="button" aria-pressed={leaf === 'messages'} onclick={() => (leaf = 'messages')}>Messages</button>
            <button type="button" aria-pressed={leaf === 'related'} onclick={() => (leaf = 'related')}>Related</button>
            <button type="button" aria-pressed={leaf === 'beside'} onclick={() => (leaf = 'beside')}>Files and guards</button>
        </div>
        {#if leaf === 'account'}
            <div class="segments" role="group" aria-label="Show">
                {#each Object.entries(shows) as [key, option] (key)}
                    <button type="button" aria-pressed={show === key} onclick={() => (show = key)}>{option.label}</button>
                {/each}
            </div>
        {/if}
    </header>
    {#if leaf === 'messages'}<MessagesLeaf {type} {id} />{:else if leaf === 'related'}<RelatedLeaf
            {type}
            {record}
        />{:else if leaf === 'beside'}<BesideLeaf {type} {id} {may} />{/if}
    <div class="scroll" class:hidden={leaf !== 'account'}>
        <CommentBox {type} {id} {may} />
        {#each waiting as signOff (signOff.id)}
            <svelte:boundary>
                <SignOffOfRecord {signOff} />
                {#snippet failed()}<Broken what="sign-off" />{/snippet}
            </svelte:boundary>
        {/each}
        {#each out as slip (slip.id)}
            <svelte:boundary>
                <SlipOfRecord {slip} />
                {#snippet failed()}<Broken what="slip" />{/snippet}
            </svelte:boundary>
        {/each}
        <div class="margined">
            {#each lines as line (line.id)}
                <svelte:boundary>
                    <PencilledLine {line} />
                    {#snippet failed()}<Broken what="line" />{/snippet}
                </svelte:boundary>
            {:else}
                {#if account.data && show !== 'edits'}
                    <div class="line pencilled">
                        <div class="m"></div>
                        <div class="b text-[13px]! text-ink-3">Nothing is pencilled in.</div>
                    </div>
                {/if}
            {/each}
            <div class="nowline">
                <span>{moment(clock.now)}</span><span>Now &nbsp;·&nbsp; above this line it is pencilled in, below it is in ink</span>
            </div>
            {#each entries as entry (entry.number)}
                <svelte:boundary>
                    <!-- A letter to a contact was sent by an entry about another record. -->
                    <EntryRow {entry} numbered={entry.recordType !== type.name || entry.recordId !== id} />{#snippet failed()}<Broken
                            what="entry"
                        />{/snippet}
                </svelte:boundary>
            {/each}
            {#if account.data && entries.length === 0}<div class="line">
                    <div class="m"></div>
                    <div class="b text-[13px]! text-ink-3">Nothing of this sort in ink.</div>
                </div>{/if}
            {#if account.hasNextPage}
                <div class="line">
                    <div class="m"></div>
                    <div class="b">
                        <button type="button" class="link text-[13px]" onclick={() => account.fetchNextPage()}>Show earlier entries</button>
                    </div>
                </div>
            {/if}
        </div>
    </div>
</section>

<script lang="ts">
    import { createMutation, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { ahead, moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { toneOf } from './status';
    import { counted, say } from '../../state/words';

    /* Where a slip stands, down the margin: whose turn it was in ink, whose it is in pencil; and what can be done about it by hand. */
    let { slip }: { slip: Resources['SlipResource'] } = $props();
    type Act = 'pass-on' | 'again' | 'withdraw';
    const client = useQueryClient();
    let withdrawing = $state(false);
    const did: Record<Resources['SlipTurnResource']['state'], string> = {
        waiting: 'has it',
        answered: say('answered'),
        passed_on: 'did not answer',
        unreached: 'could not be written to',
        over: 'need not answer any more',
    };
    const told: Record<Act, string> = {
        'pass-on': 'It has gone to the next.',
        again: 'Sent again. The link sent before is void.',
        withdraw: 'Withdrawn. Nobody can answer it any more.',
    };
    const acting = createMutation(() => ({
        mutationFn: (act: Act) => {
            const params = { params: { path: { id: slip.id } } };
            return act === 'pass-on'
                ? ask(api.POST('/api/slips/{id}/pass-on', params))
                : act === 'again'
                  ? ask(api.POST('/api/slips/{id}/again', params))
                  : ask(api.POST('/api/slips/{id}/withdraw', params));
        },
        onSuccess: (_: unknown, act: Act) => {
            toasts.tell(told[act]);
            for (const key of ['slips', 'record', 'account']) void client.invalidateQueries({ queryKey: [key] });
        },
        onError: (thrown: unknown) => toasts.complain(said(thrown)),
    }));
    const nudges = (turn: Resources['SlipTurnResource']) =>
        turn.nudged === 0 ? '' : `, ${counted(turn.nudged, ['reminded once', 'reminded # times'])}`;
</script>

<div class="margined min-h-0!" aria-label="Where the slip stands">
    {#each slip.turns as turn, place (place)}
        <div class="line" class:pencilled={turn.state === 'waiting'}>
            <div class="m">
                {moment(turn.endedAt ?? turn.sentAt)}
                {#if turn.state === 'waiting' && turn.due}<div class="text-[10.5px] text-ink-3">until {ahead(turn.due)}</div>{/if}
            </div>
            <div class="b text-[13.5px]!">
                <b>{turn.name || 'Somebody'}</b>
                {did[turn.state]}{turn.state === 'waiting' || turn.state === 'passed_on' ? nudges(turn) : ''}{turn.state === 'passed_on'
                    ? '; it went to the next'
                    : ''}
            </div>
        </div>
    {/each}
    {#if slip.status === 'waiting' && slip.nextAt}
        <div class="line pencilled">
            <div class="m">{moment(slip.nextAt)}</div>
            <div class="b text-[13.5px]!">
                {slip.hasList && slip.turns.some((turn) => turn.due === slip.nextAt) ? 'it would go to the next' : 'they would be reminded'}
            </div>
        </div>
    {/if}
    {#each slip.answers as answer, place (place)}
        <div class="line">
            <div class="m">{place === 0 && slip.endedAt ? say('answers') : ''}</div>
            <div class="b text-[13.5px]!">
                <span class="mini block">{answer.asked}</span><span class="whitespace-pre-line">{answer.said}</span>
            </div>
        </div>
    {/each}
    {#if slip.endedAt}
        <div class="line">
            <div class="m">{moment(slip.endedAt)}</div>
            <div class="b"><Stamp tone={toneOf(slip)}>{slip.statusSaid}</Stamp></div>
        </div>
    {/if}
</div>
{#if slip.status === 'waiting'}
    <div class="flex flex-wrap gap-2 px-7 py-2 pl-(--margin-at)">
        {#if slip.isMine}<a class="btn go" href="/slip/mine/{slip.id}" target="_blank">Answer it</a>{/if}
        {#if session.me?.mayEditRecords}
            {#if slip.hasList}<button type="button" class="btn" disabled={acting.isPending} onclick={() => acting.mutate('pass-on')}
                    >Pass on now</button
                >{/if}
            <button type="button" class="btn" disabled={acting.isPending} onclick={() => acting.mutate('again')}>Send again</button>
            <button type="button" class="btn quiet" disabled={acting.isPending} onclick={() => (withdrawing = true)}>Withdraw…</button>
        {/if}
    </div>
{/if}

{#if withdrawing}
    <Confirm
        title="Withdraw the slip?"
        go="Withdraw"
        danger
        onconfirm={() => {
            withdrawing = false;
            acting.mutate('withdraw');
        }}
        onclose={() => (withdrawing = false)}
    >
        <p>Its link stops working, and the lines that wait for an answer are struck out.</p>
    </Confirm>
{/if}

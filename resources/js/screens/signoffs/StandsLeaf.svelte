<script lang="ts">
    import type { Resources } from '../../api/client';
    import Stamp from '../../parts/Stamp.svelte';
    import { ahead, moment } from '../../state/moments';
    import { toneOf, wordOf } from './status';
    import { say } from '../../state/words';

    /* Where a sign-off stands: who was asked and what they said, in ink; who is asked now and who would be then, pencilled. */
    type Props = {
        signOff: Resources['SignOffResource'];
        coming?: Resources['AheadStepResource'][];
        onanswer?: (place: number) => void;
    };
    let { signOff, coming = [], onanswer }: Props = $props();
    const did = (seat: Resources['SeatResource']) =>
        seat.byItself
            ? { yes: 'counts as a yes', no: 'counts as a no' }[seat.state as 'yes' | 'no']
            : {
                  waiting: seat.asksBack ? 'has a question first' : 'is asked',
                  yes: say('agreed'),
                  no: say('declined'),
                  passed_on: 'decides no more; somebody else does',
                  over: 'was not needed',
              }[seat.state];
    const isFirst = (place: number) => place === 0 || signOff.seats[place - 1]?.step !== signOff.seats[place]?.step;
    const isNew = (step: Resources['AheadStepResource'], index: number) =>
        index === 0 ? step.step !== signOff.seats[signOff.seats.length - 1]?.step : true;
</script>

<div class="margined min-h-0!" aria-label="Where it stands">
    {#each signOff.seats as seat, place (place)}
        <div class="line" class:pencilled={seat.state === 'waiting'}>
            <div class="m">
                {moment(seat.at ?? seat.askedAt)}
                {#if seat.state === 'waiting' && seat.asksBack}<div class="text-[10.5px] text-ink-3">time stands still</div>
                {:else if seat.state === 'waiting' && seat.dueAt}<div class="text-[10.5px] text-ink-3">due {ahead(seat.dueAt)}</div>{/if}
            </div>
            <div class="b text-[13.5px]!">
                {#if isFirst(place)}<span class="mini block">Step {seat.step}</span>{/if}
                <b>{seat.person}</b>
                {#if seat.standsFor}<span class="text-ink-3">for {seat.standsFor}, who is absent,</span>{/if}
                {did(seat)}{seat.comment ? ':' : ''}
                {#if seat.comment}<q class="italic">{seat.comment}</q>{/if}
                {#each seat.talk as one, index (index)}
                    <span class="mt-0.5 block text-[12.5px] text-ink-2"><b class="font-medium">{one.by}</b>: <q>{one.text}</q></span>
                {/each}
                {#if seat.asksBack && onanswer && signOff.mayAnswerBack}
                    <button type="button" class="link mt-0.5 block text-[12.5px]" onclick={() => onanswer(place)}
                        >Answer the question…</button
                    >
                {/if}
            </div>
        </div>
    {/each}
    {#each coming as step, index (index)}
        <div class="line pencilled">
            <div class="m">then</div>
            <div class="b text-[13.5px]!">
                {#if isNew(step, index)}<span class="mini block">Step {step.step}</span>{/if}
                {#if step.leftOut}<span class="text-ink-3">left out as things are: its condition does not hold</span>
                {:else if step.people.length}<b>{step.people.join(', ')}</b> would be asked
                {:else}<span class="text-ink-3">nobody is found now; whoever stands in would be asked</span>{/if}
            </div>
        </div>
    {/each}
    {#if signOff.endedAt}
        <div class="line">
            <div class="m">{moment(signOff.endedAt)}</div>
            <div class="b"><Stamp tone={toneOf(signOff.status)}>{wordOf(signOff.status)}</Stamp></div>
        </div>
    {/if}
</div>

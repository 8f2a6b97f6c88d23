<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import Broken from '../../parts/Broken.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { daysUntil, localDay, moment } from '../../state/moments';
    import { say } from '../../state/words';

    /* A team: who has how much to do, and what of it slips. */
    const team = createQuery(() => ({
        queryKey: ['today', 'team'],
        queryFn: () => ask(api.GET('/api/today/team')),
        refetchInterval: 60_000,
    }));
    const most = $derived(Math.max(6, ...(team.data?.people ?? []).map((person) => person.open)));
    const later = (person: { open: number; late: number; dueToday: number }) => person.open - person.late - person.dueToday;
    const parts: [string, string, (person: { open: number; late: number; dueToday: number }) => number][] = [
        [say('late'), 'var(--madder)', (person) => person.late],
        [say('today'), 'var(--marigold)', (person) => person.dueToday],
        [say('later'), 'var(--iris)', later],
    ];
</script>

{#if team.isError}<div class="empty">
        <h2>The team cannot be shown.</h2>
        <p>{said(team.error)}</p>
    </div>
{:else if team.data}
    <div class="scroll border-t border-ruled">
        <table class="w-full text-[13px]">
            <caption class="sr-only">How much everybody has to do</caption>
            <thead>
                <tr class="mini border-b border-ruled text-left">
                    <th class="py-2 pl-7 font-normal max-[700px]:pl-4" scope="col">Person</th>
                    <th class="py-2 font-normal" scope="col">Open tasks</th>
                    <th class="w-14 py-2 text-right font-normal" scope="col">Late</th>
                    <th class="w-14 py-2 text-right font-normal" scope="col">Today</th>
                    <th class="w-28 py-2 pr-7 whitespace-nowrap text-right font-normal" scope="col">Sign-offs</th>
                </tr>
            </thead>
            <tbody>
                {#each team.data.people as person (person.id)}
                    <tr class="border-b border-ruled">
                        <th class="w-[38%] py-2 pl-7 text-left font-semibold max-[700px]:pl-4" scope="row">
                            {person.name}
                            {#if person.awayUntil}<Stamp tone="marigold">away until {moment(person.awayUntil)}</Stamp>{/if}
                            <span class="mini block font-normal">{person.team}</span>
                        </th>
                        <td class="py-2">
                            <span class="flex items-center gap-2">
                                <span class="flex h-2.5 flex-1 gap-[2px] max-[700px]:hidden" aria-hidden="true">
                                    {#each parts as [name, colour, count] (name)}
                                        {#if count(person) > 0}<span
                                                class="rounded-[2px]"
                                                style:background={colour}
                                                style:width="{(count(person) / most) * 100}%"
                                            ></span>{/if}
                                    {/each}
                                </span>
                                <span class="figures w-7 text-right">{person.open}</span>
                            </span>
                        </td>
                        <td class="figures py-2 text-right {person.late ? 'text-madder' : 'text-ink-3'}">{person.late}</td>
                        <td class="figures py-2 text-right {person.dueToday ? '' : 'text-ink-3'}">{person.dueToday}</td>
                        <td class="figures py-2 pr-7 text-right max-[700px]:pr-4 {person.signOffs ? '' : 'text-ink-3'}"
                            >{person.signOffs}</td
                        >
                    </tr>
                {/each}
            </tbody>
        </table>
        <h2 class="mt-6 mb-1 px-7 max-[700px]:px-4">Overdue in the team</h2>
        <div class="margined min-h-0!">
            {#each team.data.slipping as task (task.id)}
                <svelte:boundary>
                    <div class="line">
                        <div class="m text-madder!">{task.dueAt ? `${-daysUntil(localDay(task.dueAt)) || '<1'} d late` : ''}</div>
                        <div class="b flex items-baseline gap-3">
                            <div class="min-w-0 flex-1">
                                <span class="font-semibold">{task.title}</span>
                                <a class="block text-[12.5px] text-ink-3 hover:text-iris" href="/records/{task.recordType}/{task.recordId}"
                                    ><span class="figures">{task.recordNumber}</span> {task.recordTitle}</a
                                >
                            </div>
                            <span class="word person shrink-0 text-[12.5px]">{task.assignee ?? say('nobody')}</span>
                        </div>
                    </div>
                    {#snippet failed()}<Broken what="task" />{/snippet}
                </svelte:boundary>
            {:else}<p class="px-7 py-2 text-[13px] text-ink-2">Nothing of theirs is late.</p>{/each}
        </div>
    </div>
{/if}

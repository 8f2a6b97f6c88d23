<script lang="ts">
    import { say } from '../../state/words';
    import type { Resources } from '../../api/client';
    import Bars from '../../parts/Bars.svelte';
    import { session } from '../../state/session.svelte';
    import DayLines from './DayLines.svelte';
    import DueChart from './DueChart.svelte';

    /* The rules in force: how they are doing, what is to come of them, and how often each has fired. */
    let { rules }: { rules: Resources['TodayRulesResource'] } = $props();
    let chosen = $state<string | null>(null);
    const marks = $derived([
        {
            label: 'fired today',
            count: rules.fired,
            to: '/ledger?outcome=done',
            says: 'Firings since midnight',
            bad: false,
        },
        { label: 'behind their time', count: rules.behind, to: '/setup', says: 'Lines that should be done by now', bad: true },
        { label: 'left out', count: rules.tooLate, to: '/ledger?outcome=left_out', says: 'Lines that came too late', bad: true },
        { label: say('stuck'), count: rules.setAside, to: '/setup', says: 'Lines that could not be done', bad: true },
        { label: 'chains stopped', count: rules.stopped, to: '/ledger?outcome=failed', says: 'Rules that set each other off', bad: true },
        { label: 'letters failed', count: rules.messagesFailed, to: '/mail-room', says: 'Messages that nobody got', bad: true },
        { label: 'calls failed', count: rules.callsFailed, to: '/setup/systems', says: 'Calls of other systems that failed', bad: true },
    ]);
</script>

<ul class="flex flex-wrap border-y border-ruled px-4">
    {#each marks as mark (mark.label)}
        <li class="min-w-[92px] flex-1">
            <a class="block px-3 py-2.5 hover:bg-lit" href={mark.to} title={mark.says}>
                <span
                    class="figures block text-[20px] leading-tight {mark.bad && mark.count
                        ? 'text-madder'
                        : mark.count
                          ? ''
                          : 'text-ink-3'}"
                >
                    {mark.count}
                </span>
                <span class="block text-[12px] leading-snug {mark.bad && mark.count ? 'font-semibold' : 'text-ink-2'}">{mark.label}</span>
            </a>
        </li>
    {/each}
</ul>
<div class="border-b border-ruled px-7 py-3">
    <DueChart title="Pencilled in, the next two weeks" days={rules.days} {chosen} onchoose={(date) => (chosen = date)} />
</div>
<div class="scroll">
    {#if chosen}<DayLines date={chosen} whose="all" onback={() => (chosen = null)} />{:else}{#each rules.rules as rule (rule.id)}
            <a class="flex items-center gap-3 border-b border-ruled px-7 py-2 hover:text-iris max-[700px]:px-4" href="/rules/{rule.id}">
                <div class="min-w-0 flex-1">
                    <div class="truncate text-[13px] font-semibold">{rule.name}</div>
                    <div class="mini">{session.type(rule.on).plural}{rule.broken ? ` · ${rule.broken}` : ''}</div>
                </div>
                <div class="w-40 shrink-0 max-[700px]:w-24"><Bars values={rule.days} label="Firings on each of the last 14 days" /></div>
                <span class="figures w-9 shrink-0 text-right text-[12px]">{rule.days.reduce((sum, count) => sum + count, 0)}</span>
            </a>
        {:else}
            <p class="px-7 py-3 text-[13px] text-ink-2">No rule is in force. <a class="link" href="/rules">Write one</a></p>
        {/each}{/if}
</div>

<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import { dayName, localDay, moment } from '../../state/moments';
    import { clock, session } from '../../state/session.svelte';
    import { tour } from '../../state/tour.svelte';
    import FirstSteps from './FirstSteps.svelte';
    import ForMe from './ForMe.svelte';
    import MyDay from './MyDay.svelte';
    import RulesDay from './RulesDay.svelte';
    import TeamDay from './TeamDay.svelte';
    import { counted } from '../../state/words';

    /* Not the same page for all: one's own day, the team of whoever leads one, the rules of whoever looks after them. */
    crumbs.set({ label: 'Today' });
    type View = 'day' | 'team' | 'rules';
    const labels: Record<View, string> = { day: 'My day', team: 'My team', rules: 'The rules' };
    const mayRules = $derived(session.me?.mayEditRules ?? false);
    const today = createQuery(() => ({ queryKey: ['today'], queryFn: () => ask(api.GET('/api/today')), refetchInterval: 60_000 }));
    const rules = createQuery(() => ({
        queryKey: ['today', 'rules'],
        enabled: mayRules,
        queryFn: () => ask(api.GET('/api/today/rules')),
        refetchInterval: 60_000,
    }));
    const views = $derived<View[]>(['day', ...(today.data?.team ? (['team'] as const) : []), ...(mayRules ? (['rules'] as const) : [])]);
    let chosen = $state<View | null>(null);
    const inForce = $derived(rules.data ? counted(rules.data.rules.length, ['# rule in force', '# rules in force']) : 'The rules in force');
    const view = $derived<View>(chosen ?? (mayRules ? 'rules' : (today.data?.team ?? 0) > 0 ? 'team' : 'day'));
    const wanting = $derived((today.data?.late ?? 0) + (today.data?.dueToday ?? 0));
    const troubles = $derived(
        rules.data
            ? rules.data.behind +
                  rules.data.tooLate +
                  rules.data.setAside +
                  rules.data.stopped +
                  rules.data.messagesFailed +
                  rules.data.callsFailed
            : 0,
    );
</script>

<div class="spread grid-cols-[minmax(0,1fr)_minmax(320px,400px)]">
    <section class="leaf left" style="--margin-at: 118px">
        <header class="flex items-start gap-3 border-0!">
            <div>
                <h1>{dayName(localDay(clock.now))}</h1>
                <p class="sub">
                    {#if today.isError}{said(today.error)}
                    {:else if !today.data}Reading…
                    {:else if view === 'rules'}
                        {#if rules.data?.rules.length === 0 && !troubles}No rule is in force yet.
                        {:else}{inForce}, {troubles
                                ? counted(troubles, ['# thing to look at', '# things to look at'])
                                : 'and nothing went wrong'}.{/if}
                    {:else if view === 'team'}{counted(today.data.team, ['# person reports to you.', '# people report to you.'])}
                    {:else if wanting}
                        {counted(wanting, ['# thing wants you today', '# things want you today'])}{today.data.late
                            ? `, ${today.data.late} late`
                            : ''}.
                    {:else}Nothing of yours is due today, {session.me?.name.split(' ')[0]}.{/if}
                </p>
            </div>
            {#if views.length > 1}
                <div class="segments ml-auto shrink-0 whitespace-nowrap" role="group" aria-label="What is shown">
                    {#each views as one (one)}
                        <button type="button" aria-pressed={view === one} onclick={() => (chosen = one)}>{labels[one]}</button>
                    {/each}
                </div>
            {/if}
        </header>
        {#if view === 'team'}<TeamDay />
        {:else if view === 'rules'}{#if rules.data}<RulesDay rules={rules.data} />{/if}
        {:else if today.data}<MyDay today={today.data} />{/if}
    </section>
    <section class="leaf right">
        <div class="scroll p-6">
            {#if session.me && !session.me.preferences.toured}
                <section class="mb-6 rounded-lg border border-edge bg-raised px-4 py-3 text-[13px]" aria-label="New here?">
                    <p>New here? Once around the application takes a minute.</p>
                    <div class="mt-2 flex gap-2">
                        <button type="button" class="btn" onclick={() => tour.begin()}>Show me around</button>
                        <button type="button" class="btn quiet" onclick={() => tour.end()}>No, thanks</button>
                    </div>
                </section>
            {/if}
            {#if mayRules && rules.data?.rules.length === 0}<FirstSteps />{/if}
            {#if view === 'rules' && rules.data}
                <h2 class="mb-1">Latest entries</h2>
                {#each rules.data.entries as entry (entry.number)}
                    {@const head = entry.headInLedger}
                    <a
                        class="grid grid-cols-[92px_1fr] gap-2 border-b border-ruled py-1.5 text-[12.5px] hover:text-iris"
                        href="/ledger/{entry.number}"
                    >
                        <span class="figures mini">{moment(entry.at)}</span><span
                            ><b class="font-semibold">{head.strong}</b> {head.rest}</span
                        >
                    </a>
                {/each}
                <div class="h-6"></div>
            {/if}
            {#if today.data}<ForMe today={today.data} />{/if}
        </div>
    </section>
</div>

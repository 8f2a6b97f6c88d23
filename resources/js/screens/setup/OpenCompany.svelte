<script lang="ts">
    import { Checkbox, Input, Select } from 'flowbite-svelte';
    import { api, ask, Refusal, said, type Posted, type Resources } from '../../api/client';

    /* The first page that anybody sees of a new server: a company, its hours, what it starts with, and who keeps it. */
    let { token, welcome }: { token: string; welcome: Resources['WelcomeResource'] } = $props();
    const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
    const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
    let company = $state('');
    type Sets = Posted<'/api/welcome/{token}/company'>['sets'];
    // svelte-ignore state_referenced_locally
    let timeZone = $state(welcome.timeZones.includes(here) ? here : 'UTC');
    let from = $state('09:00');
    let to = $state('17:00');
    let days = $state([1, 2, 3, 4, 5]);
    let sets = $state<Sets>(['sales', 'service']);
    let name = $state('');
    let email = $state('');
    let password = $state('');
    let refusal = $state.raw<Refusal | null>(null);
    let problem = $state('');
    let busy = $state(false);

    async function open(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        refusal = null;
        problem = '';
        try {
            const body = { company, timeZone, from, to, days, sets, name: name.trim(), email: email.trim(), password };
            await ask(api.POST('/api/welcome/{token}/company', { params: { path: { token } }, body }));
            location.assign('/');
        } catch (thrown) {
            if (thrown instanceof Refusal && thrown.problem.problems.length) refusal = thrown;
            else problem = said(thrown);
            busy = false;
        }
    }

    const toggle = <T,>(list: T[], one: T): T[] => (list.includes(one) ? list.filter((other) => other !== one) : [...list, one]);
</script>

{#snippet wrong(at: string)}
    {#if refusal?.at(at)}<p class="note-wrong mt-1" role="alert">{refusal.at(at)}</p>{/if}
{/snippet}

<h1 class="text-[26px]!">A ledger of your own</h1>
<p class="sub mt-2">Five questions, and you can write your first rule. All of it can be changed later.</p>
<form class="mt-5 grid gap-5" onsubmit={open}>
    <div>
        <label class="block text-[12.5px] font-semibold" for="company">What is the company called?</label>
        <Input id="company" class="mt-1" required maxlength={120} autofocus bind:value={company} />
        {@render wrong('/company')}
    </div>
    <div class="grid gap-3 sm:grid-cols-2">
        <div>
            <label class="block text-[12.5px] font-semibold" for="zone">Its time zone</label>
            <Select placeholder="" id="zone" class="mt-1" bind:value={timeZone}>
                {#each welcome.timeZones as zone (zone)}<option value={zone}>{zone.replaceAll('_', ' ')}</option>{/each}
            </Select>
            {@render wrong('/timeZone')}
        </div>
        <div>
            <span class="block text-[12.5px] font-semibold">When is work done?</span>
            <div class="mt-1 flex items-center gap-2">
                <Input class="figures" type="time" required aria-label="Work begins" bind:value={from} />
                <span class="text-ink-3">to</span>
                <Input class="figures" type="time" required aria-label="Work ends" bind:value={to} />
            </div>
            {@render wrong('/to')}
        </div>
        <div class="flex flex-wrap gap-1.5 sm:col-span-2" role="group" aria-label="Working days">
            {#each DAYS as day, index (day)}
                <button
                    type="button"
                    class="supposed {days.includes(index + 1) ? 'on' : ''}"
                    aria-pressed={days.includes(index + 1)}
                    onclick={() => (days = toggle(days, index + 1))}>{day}</button
                >
            {/each}
            {@render wrong('/days')}
        </div>
    </div>
    <fieldset>
        <legend class="text-[12.5px] font-semibold">What do you want to start with?</legend>
        <p class="mini">Record types with their fields, and starter rules to look at. No rule is in force until you say so.</p>
        <div class="mt-2 grid gap-2">
            {#each welcome.sets as set (set.name)}
                <label class="flex cursor-pointer items-start gap-3 rounded-lg border border-edge px-3 py-2 has-checked:border-iris">
                    <Checkbox
                        class="mt-1 h-4 w-4"
                        checked={sets.includes(set.name as Sets[number])}
                        onchange={() => (sets = toggle(sets, set.name as Sets[number]))}
                    />
                    <span><b class="block text-[13.5px]">{set.label}</b><span class="text-[12.5px] text-ink-2">{set.says}</span></span>
                </label>
            {/each}
        </div>
    </fieldset>
    <div class="grid gap-3 border-t border-ruled pt-4 sm:grid-cols-2">
        <div>
            <label class="block text-[12.5px] font-semibold" for="name">Your name</label>
            <Input id="name" class="mt-1" required maxlength={120} autocomplete="name" bind:value={name} />
            {@render wrong('/name')}
        </div>
        <div>
            <label class="block text-[12.5px] font-semibold" for="email">Your e-mail address</label>
            <Input id="email" class="mt-1" type="email" required autocomplete="username" bind:value={email} />
            {@render wrong('/email')}
        </div>
        <div class="sm:col-span-2">
            <label class="block text-[12.5px] font-semibold" for="password">A password</label>
            <Input id="password" class="mt-1" type="password" required autocomplete="new-password" bind:value={password} />
            <p class="mini mt-1">At least {welcome.least} characters. A few words in a row do well.</p>
            {@render wrong('/password')}
        </div>
    </div>
    {#if problem}<p class="callout bad" role="alert">{problem}</p>{/if}
    <button class="btn go py-2" disabled={busy}>{busy ? 'Opening the ledger…' : 'Open the ledger'}</button>
</form>

<script lang="ts">
    import { Checkbox } from 'flowbite-svelte';
    import { useQueryClient } from '@tanstack/svelte-query';
    import { Refusal, said, type Resources } from '../../api/client';
    import { upload } from '../../api/upload';
    import Stamp from '../../parts/Stamp.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import FileButton from '../../parts/fields/FileButton.svelte';
    import { counted, say } from '../../state/words';

    /* The setup as one archive: what it would change here is said first, and then all of it is brought in, or nothing. */
    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Export and import' });
    const client = useQueryClient();
    let file = $state.raw<File | null>(null);
    let plan = $state.raw<Resources['SetupPlanResource'] | null>(null);
    let refusal = $state.raw<Refusal | null>(null);
    let problem = $state('');
    let despite = $state(false);
    let busy = $state(false);
    let done = $state(false);
    const faults = $derived(plan?.problems.length ? plan.problems : (refusal?.problem.problems ?? []));
    const proofsOnly = $derived(faults.length > 0 && faults.every((one) => one.code === 'proof_broken'));

    async function run(path: 'plan' | 'apply') {
        if (!file || busy) return;
        [busy, refusal, problem, done] = [true, null, '', false];
        try {
            plan = await upload<Resources['SetupPlanResource']>(`/api/setup/${path}`, file, despite ? { despite: '1' } : {});
            if (path === 'apply') {
                await Promise.all([client.invalidateQueries(), session.refreshSchema()]);
                done = true;
                toasts.tell(counted(plan.changes.length, ['# file brought in.', '# files brought in.']));
            }
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            problem = said(thrown);
            if (path === 'plan') plan = null;
        }
        busy = false;
    }

    function chosen(archive: File) {
        file = archive;
        [plan, despite] = [null, false];
        void run('plan');
    }
</script>

<div class="spread grid-cols-[minmax(0,4fr)_minmax(0,7fr)]">
    <section class="leaf left">
        <header>
            <h1>Export and import</h1>
            <p class="sub">From a copy in which something was tried to the company that is at work.</p>
        </header>
        <div class="scroll grid content-start gap-6 px-7 py-5 text-[13px]">
            <div>
                <h2>Export</h2>
                <p class="mt-1 mb-2 text-ink-2">
                    Record types, roles, calendars, conditions, ladders, letters, routes, slips, connections, hooks and rules with their
                    proofs, as JSON files in one archive. People, records and secrets are not among them.
                </p>
                <a class="btn" href="/api/setup" download>Download the setup</a>
            </div>
            <div>
                <h2>Import</h2>
                <p class="mt-1 mb-2 text-ink-2">
                    What it would change is shown first. What is here and not in the archive stays. Rules leave alone what matches already.
                </p>
                <FileButton
                    says={busy ? 'Reading…' : file ? 'Choose another archive' : 'Choose an archive'}
                    accept=".zip"
                    {busy}
                    onchoose={chosen}
                />
                {#if file}<span class="mini ml-2">{file.name}</span>{/if}
            </div>
        </div>
    </section>
    <section class="leaf right">
        {#if plan || refusal}
            <header class="flex items-start gap-3">
                <div class="min-w-0 flex-1">
                    <h2 class="title text-[21px]!">
                        {#if faults.length}{counted(faults.length, ['# problem in the way', '# problems in the way'])}
                        {:else if done}It is brought in
                        {:else if plan?.changes.length}{counted(plan.changes.length, [
                                '# file would change something',
                                '# files would change something',
                            ])}{:else}Everything is so already{/if}
                    </h2>
                    <p class="sub" aria-live="polite">
                        {plan
                            ? counted(plan.same, ['# file says what is so already.', '# files say what is so already.'])
                            : 'Nothing was changed.'}
                    </p>
                </div>
                {#if plan && plan.changes.length && !done}<button
                        type="button"
                        class="btn go"
                        disabled={busy || (faults.length > 0 && !(proofsOnly && despite))}
                        onclick={() => run('apply')}>Import</button
                    >{/if}
            </header>
            <div class="scroll px-7 py-4 text-[13px]">
                {#if problem && !faults.length}<p class="callout bad mb-3" role="alert">{problem}</p>{/if}
                {#each faults as one (`${one.at} ${one.message}`)}
                    <div class="callout bad mb-2" role="alert">
                        <span class="figures mini block">{one.at}</span>{one.message}
                    </div>
                {/each}
                {#if proofsOnly}<label class="mb-3 flex items-center gap-2"
                        ><Checkbox bind:checked={despite} /> Though proofs do not hold</label
                    >{/if}
                {#each plan?.changes ?? [] as change (change.path)}
                    <div class="border-b border-ruled py-2">
                        <div class="flex items-baseline gap-2">
                            <Stamp tone={change.isNew ? 'fern' : 'harbor'}>{change.isNew ? say('new') : say('changes')}</Stamp>
                            <b class="font-semibold">{change.name}</b>
                            <span class="figures mini ml-auto truncate">{change.path}</span>
                        </div>
                        {#each change.said as line, index (index)}<div class="pl-1 text-ink-2">{line}</div>{/each}
                    </div>
                {/each}
                {#if plan?.besides.length}
                    <h3 class="mt-5 mb-1 font-semibold">Here, and not in the archive; it stays</h3>
                    {#each plan.besides as one (one)}<div class="text-ink-2">{one}</div>{/each}
                {/if}
            </div>
        {:else}
            <div class="empty">
                <h2>What would change?</h2>
                <p>
                    Choose an archive, and every type, role, letter and rule that says something else is listed here, sentence by sentence.
                </p>
            </div>
        {/if}
    </section>
</div>

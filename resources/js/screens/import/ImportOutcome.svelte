<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import { Radio } from 'flowbite-svelte';
    import { api, ask, said, type Shapes } from '../../api/client';
    import { counted } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';

    /* What an import would come to, how far it is, and what came of it. */
    type Props = { type: Shapes['TypeShape']; file: Shapes['ImportShape'] };
    let { type, file }: Props = $props();
    const client = useQueryClient();
    const job = $derived(file.job);
    const good = $derived(file.create + file.update + file.same);
    let answered = $state('');
    let busy = $state(false);
    const n = (count: number) => count.toLocaleString('en-GB');
    const share = $derived(
        ['undoing', 'undone'].includes(job.status) ? job.undone / Math.max(1, job.saved) : job.done / Math.max(1, job.total),
    );
    const titles: Record<string, string> = {
        trying: 'Trying every row…',
        tried: 'What would come of it',
        waiting: 'It is about to begin…',
        running: 'Bringing them in…',
        stopped: 'Stopped',
        done: 'It is brought in',
        undoing: 'Taking back…',
        undone: 'Taken back',
    };
    const times = (count: number) => (file.tried < good ? `about ${n(Math.round((count * good) / Math.max(1, file.tried)))}` : n(count));

    async function turn(act: () => Promise<unknown>) {
        busy = true;
        try {
            await act();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        await client.invalidateQueries();
        busy = false;
    }
    const path = $derived({ params: { path: { id: job.id } } });
    const start = () => turn(() => ask(api.POST('/api/imports/{id}/start', { ...path, body: { answered: answered === 'yes' } })));
</script>

<header class="flex items-start gap-3">
    <div class="min-w-0 flex-1">
        <h2 class="title text-[21px]!" aria-live="polite" data-import={job.status}>{titles[job.status]}</h2>
        <p class="sub">
            {#if job.status === 'tried'}{n(file.create)} new, {n(file.update)} changed, {n(file.same)} as they are;
                {counted(job.refused, 'row')} left out.
            {:else if job.status === 'trying'}{n(job.done)} of {n(job.total)} rows.
            {:else if ['undoing', 'undone'].includes(job.status)}{n(job.undone)} of {n(job.saved)} taken back.
            {:else}{n(job.saved)} of {n(job.total)} rows saved{job.refused ? `, ${n(job.refused)} left out` : ''}.{/if}
        </p>
    </div>
    {#if ['waiting', 'running'].includes(job.status)}<button
            type="button"
            class="btn"
            disabled={busy}
            onclick={() => turn(() => ask(api.POST('/api/bulk/{id}/stop', path)))}>Stop</button
        >
    {:else if job.status === 'stopped'}<button
            type="button"
            class="btn"
            disabled={busy}
            onclick={() => turn(() => ask(api.POST('/api/bulk/{id}/go-on', path)))}>Go on</button
        >{/if}
    {#if ['stopped', 'done'].includes(job.status) && job.saved > 0}<button
            type="button"
            class="btn danger"
            disabled={busy}
            onclick={() => turn(() => ask(api.POST('/api/bulk/{id}/undo', path)))}>Undo</button
        >{/if}
</header>
<div class="scroll px-6 py-4 text-[13px]">
    {#if job.status !== 'tried'}
        <div
            class="mb-4 h-1.5 overflow-hidden rounded bg-ruled"
            role="progressbar"
            aria-label="Rows"
            aria-valuenow={Math.round(share * 100)}
        >
            <div class="h-full bg-iris transition-[width]" style:width="{100 * share}%"></div>
        </div>
    {/if}
    {#if file.stoppedBecause}<p class="callout bad mb-3" role="alert">{file.stoppedBecause}</p>{/if}
    {#if job.status === 'tried' && good > 0}
        <fieldset class="mb-4 grid gap-2">
            <legend class="mb-1 font-semibold">Shall rules answer these rows?</legend>
            <Radio name="answered" value="yes" bind:group={answered} classes={{ label: 'items-start' }}
                ><span
                    >Yes, as if each were saved by hand:
                    {#each file.rules as rule, index (rule.id)}{index ? ', ' : ''}<a class="link" href="/rules/{rule.id}" target="_blank"
                            >{rule.name}</a
                        >
                        <span class="figures">{times(rule.count)} ×</span>{:else}no rule would fire{/each}.
                    {#if file.tried < good && file.rules.length}<span class="mini">Guessed from the first {n(file.tried)}.</span>{/if}</span
                ></Radio
            >
            <Radio name="answered" value="no" bind:group={answered}>No. They are kept as they are, and no rule starts.</Radio>
            <div>
                <button type="button" class="btn go" disabled={busy || answered === ''} onclick={start}
                    >Bring in {counted(good, 'row')}</button
                >
            </div>
        </fieldset>
    {/if}
    {#if job.status === 'done'}
        <p class="mb-3"><a class="link" href="/records/{type.name}">See the {type.plural.toLowerCase()}</a></p>
    {/if}
    {#if job.refused > 0 && !['trying', 'waiting', 'running'].includes(job.status)}
        <div class="mb-1 flex items-baseline gap-3">
            <h2 class="text-[15px]!">{counted(job.refused, 'row')} left out</h2>
            <a class="link ml-auto" href="/api/imports/{job.id}/report" download>As a file, to be mended</a>
        </div>
        {#each file.problems as problem, index (index)}
            <div class="grid grid-cols-[64px_1fr] gap-3 border-b border-ruled py-1.5">
                <span class="figures mini">row {problem.row}</span>
                <span>{problem.said}</span>
            </div>
        {/each}
        {#each job.problems.filter((one) => !file.problems.some((other) => other.row === one.place)) as problem (problem.place)}
            <div class="grid grid-cols-[64px_1fr] gap-3 border-b border-ruled py-1.5">
                <span class="figures mini">row {problem.place}</span><span>{problem.said}</span>
            </div>
        {/each}
        {#if file.problems.length === 200}<p class="mini mt-2">The first two hundred are listed; the file has all.</p>{/if}
    {:else if job.status === 'tried'}<p class="text-ink-2">Nothing is wrong in any row.</p>{/if}
</div>

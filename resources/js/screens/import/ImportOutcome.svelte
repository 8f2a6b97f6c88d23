<script lang="ts">
    import { inFigures } from '../../state/numbers';
    import { useQueryClient } from '@tanstack/svelte-query';
    import { Radio } from 'flowbite-svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import ProgressBar from '../../parts/ProgressBar.svelte';
    import ImportProblems from './ImportProblems.svelte';
    import BulkActs from '../lists/BulkActs.svelte';
    import { isUndo, shareOf } from '../lists/bulk';
    import { toasts } from '../../state/toasts.svelte';
    import { counted, within } from '../../state/words';

    /* What an import would come to, how far it is, and what came of it. */
    type Props = {
        type: Resources['TypeResource'];
        file: Resources['ImportResource'];
        ontry: (values: Resources['ImportValueResource'][]) => void;
    };
    let { type, file, ontry }: Props = $props();
    const client = useQueryClient();
    const job = $derived(file.job);
    const good = $derived(file.create + file.update + file.same);
    let answered = $state('');
    let busy = $state(false);
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
    const times = (count: number) =>
        file.tried < good ? `about ${inFigures(Math.round((count * good) / Math.max(1, file.tried)))}` : inFigures(count);

    async function start() {
        busy = true;
        try {
            const body = { answered: answered === 'yes' };
            await ask(api.POST('/api/imports/{id}/start', { params: { path: { id: job.id } }, body }));
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        await client.invalidateQueries();
        busy = false;
    }
</script>

<header class="flex items-start gap-3">
    <div class="min-w-0 flex-1">
        <h2 class="title text-[21px]!" aria-live="polite" data-import={job.status}>{titles[job.status]}</h2>
        <p class="sub">
            {#if job.status === 'tried'}{inFigures(file.create)} new, {inFigures(file.update)} changed, {inFigures(file.same)} as they are;
                {counted(job.refused, ['# row left out.', '# rows left out.'])}
            {:else if job.status === 'trying'}{inFigures(job.done)} of {inFigures(job.total)} rows.
            {:else if isUndo(job)}{inFigures(job.undone)} of {inFigures(job.saved)} taken back.
            {:else}{inFigures(job.saved)} of {inFigures(job.total)} rows saved{job.refused
                    ? `, ${inFigures(job.refused)} left out`
                    : ''}.{/if}
        </p>
    </div>
    <BulkActs {job} onturned={() => client.invalidateQueries()} />
</header>
<div class="scroll px-6 py-4 text-[13px]">
    {#if job.status !== 'tried'}<ProgressBar share={shareOf(job)} label="Rows" class="mb-4" />{/if}
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
                    {#each file.refusals as reason (reason.said)}<span class="block text-madder"
                            >{reason.said} <span class="figures">{times(reason.count)} ×</span></span
                        >{/each}
                    {#if file.tried < good && file.rules.length}<span class="mini">Guessed from the first {inFigures(file.tried)}.</span
                        >{/if}</span
                ></Radio
            >
            <Radio name="answered" value="no" bind:group={answered}>No. They are kept as they are, and no rule starts.</Radio>
            <div>
                <button type="button" class="btn go" disabled={busy || answered === ''} onclick={start}
                    >{counted(good, ['Bring in # row', 'Bring in # rows'])}</button
                >
            </div>
        </fieldset>
    {/if}
    {#if job.status === 'done'}
        <p class="mb-3"><a class="link" href="/records/{type.name}">See the {within(type.plural)}</a></p>
    {/if}
    {#if job.refused > 0 && !['trying', 'waiting', 'running'].includes(job.status)}
        <div class="mb-1 flex items-baseline gap-3">
            <h2 class="text-[15px]!">{counted(job.refused, ['# row left out', '# rows left out'])}</h2>
            <a class="link ml-auto" href="/api/imports/{job.id}/report" download>Export these rows, to mend them</a>
        </div>
        <ImportProblems {type} {file} {ontry} />
        {#each job.problems.filter((one) => !file.problems.some((other) => other.row === one.place)) as problem (problem.place)}
            <div class="grid grid-cols-[64px_1fr] gap-3 border-b border-ruled py-1.5">
                <span class="figures mini">row {problem.place}</span><span>{problem.said}</span>
            </div>
        {/each}
        {#if file.groups.length === 60}<p class="mini mt-2">The sixty most frequent are listed; the file has all.</p>{/if}
    {:else if job.status === 'tried'}<p class="text-ink-2">Nothing is wrong in any row.</p>{/if}
</div>

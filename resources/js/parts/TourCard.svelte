<script lang="ts">
    import { stepsAround, tour } from '../state/tour.svelte';
    import Floating from './Floating.svelte';

    /* One place of the application, told beside its name. A place that somebody does not have is passed over. */
    let { nav }: { nav: () => HTMLElement | null } = $props();
    const places = $derived(
        stepsAround().flatMap((step) => {
            const found = [...(nav()?.querySelectorAll<HTMLAnchorElement>('a[href]') ?? [])].find((link) => {
                const to = link.getAttribute('href') ?? '';
                return step.to.endsWith('/') && step.to !== '/' ? to.startsWith(step.to) : to === step.to;
            });
            return found ? [{ ...step, anchor: found }] : [];
        }),
    );
    const place = $derived(places[tour.at ?? 0]);
    const isLast = $derived((tour.at ?? 0) >= places.length - 1);
</script>

{#if place}
    {#key place.to}
        <Floating anchor={place.anchor} label="Around the application" placement="right-start" onclose={() => tour.end()}>
            <div class="w-[300px] p-4 text-[13px]" data-tour={place.to}>
                <h2 class="mb-1">{place.title}</h2>
                <p class="leading-normal text-ink-2">{place.says}</p>
                <div class="mt-3 flex items-center gap-2">
                    <button type="button" class="btn go" onclick={() => (isLast ? tour.end() : (tour.at = (tour.at ?? 0) + 1))}
                        >{isLast ? 'Done' : 'Next'}</button
                    >
                    {#if (tour.at ?? 0) > 0}<button type="button" class="btn" onclick={() => (tour.at = (tour.at ?? 1) - 1)}>Back</button
                        >{/if}
                    <button type="button" class="btn quiet ml-auto" onclick={() => tour.end()}>Skip</button>
                </div>
                <p class="mini mt-2" aria-live="polite">{(tour.at ?? 0) + 1} of {places.length}</p>
            </div>
        </Floating>
    {/key}
{/if}

'use client';
/** The fabric that a click on a patch gives it, as a position among the fabrics of the job's quilt. */
import { create } from 'zustand';

export const useFabricInHand = create<{ readonly fabric: number }>(() => ({ fabric: 0 }));
export const takeFabric = (fabric: number): void => useFabricInHand.setState({ fabric });

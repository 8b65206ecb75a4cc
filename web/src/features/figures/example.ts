/** A table to try it with: six plots of a made-up meadow, counts of individuals. */
export const EXAMPLE = `plot\tVellorna alata\tSenecorra discoidea\tCrepessa hirsuta\tCarpessa rubra\tMirelda caprina\tAlvena palus\tEuphorra lactea\tOssaria nana
Lang Meadow 1\t14\t3\t1\t0\t0\t2\t0\t0
Lang Meadow 2\t9\t0\t2\t1\t0\t6\t0\t0
Lang Meadow 3\t21\t1\t0\t0\t1\t1\t0\t0
Lang Meadow 4\t4\t2\t5\t0\t0\t8\t1\t0
Lang Meadow 5\t11\t0\t0\t2\t0\t3\t0\t1
Lang Meadow 6\t7\t4\t3\t0\t0\t5\t0\t0
`;
